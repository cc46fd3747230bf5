import { type Attributed, columnNamed, type Domain, type Numbers, type Table } from '../geometry/attributes';
import { PATHS, type Paths, pathCount } from '../geometry/paths';
import type { Element } from '../geometry/element';

/** An element that goes from place to place: what is asked of it is read where it stands. */
export interface Place extends Element {
  /** Number of the point, vertex or whatever it is. */
  at: number;
}

/** A place in a geometry whose attributes can be read by name. @param count paths, or parts, that there are */
export function placeIn<T extends Table>(table: T, of: Attributed<T>, domain: Domain, count: number): Place {
  const readers = new Map<string, () => number | null>();
  const place: Place = {
    id: 0,
    index: 0,
    count,
    u: 0,
    at: 0,
    read: (name) => {
      let reader = readers.get(name);
      if (!reader) readers.set(name, (reader = readerOf(table, of, domain, name, place)));
      return reader();
    },
  };
  return place;
}

function readerOf<T extends Table>(
  table: T,
  of: Attributed<T>,
  domain: Domain,
  name: string,
  place: Readonly<Place>,
): () => number | null {
  const column = columnNamed(table, of, name);
  const { positions } = of as { positions?: Numbers };
  if (!column && name === 'height' && positions) return () => positions[3 * place.at + 1];
  if (!column?.values || (column.type.domain !== domain && column.type.domain !== 'path')) return () => null;
  const { values, type } = column;
  const perPath = type.domain === 'path';
  const { width } = type;
  if (width === 1) return () => values[perPath ? place.index : place.at];
  return () => {
    const first = width * (perPath ? place.index : place.at);
    let sum = 0;
    for (let c = 0; c < width; c++) sum += values[first + c] ** 2;
    return Math.sqrt(sum);
  };
}

/** So many points between two yields. */
const CHUNK = 8192;

/** Calls for every point of every path with where it is; the object is the same each time. */
export async function eachElement(
  paths: Paths,
  call: (element: Readonly<Place>, point: number) => void,
  yieldNow: () => Promise<void>,
): Promise<void> {
  const place = placeIn(PATHS, paths, 'point', pathCount(paths));
  for (let index = 0; index < place.count; index++) {
    place.id = paths.ids[index];
    place.index = index;
    for (let i = paths.offsets[index]; i < paths.offsets[index + 1]; i++) {
      if (i % CHUNK === 0) await yieldNow();
      place.u = paths.u[i];
      place.at = i;
      call(place, i);
    }
  }
}
