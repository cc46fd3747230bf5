import { linearOf } from '../../fields/srgb';
import { type Attribute, type Named, oneNumber } from '../../geometry/attributes';
import type { Form } from '../../geometry/form';
import { type Mesh, vertexCount } from '../../geometry/mesh';
import { pathCount, type Paths, pointCount } from '../../geometry/paths';
import { at } from '../../geometry/vec';
import { lumaOf, type Wrap, pictureSampler } from '../../pictures/samplePicture';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { pictureOf, projectionOf } from '../stepPicture';
import { skinMapping } from '../skinMapping';
import { pictureKeptAs, type PictureValuesParams } from './pictureValues';

/** Where in the picture each of so many places lies, 0..1 from the left and the bottom. */
interface Places {
  count: number;
  at: (k: number) => readonly [number, number];
}

const CHANNELS: Readonly<Record<string, (color: Float64Array) => number>> = {
  brightness: lumaOf,
  red: (color) => color[0],
  green: (color) => color[1],
  blue: (color) => color[2],
  opacity: (color) => color[3],
};

/** A form whose places know what a picture holds where they are. */
export async function runPictureValues(form: Form, p: PictureValuesParams, context: StepContext): Promise<Form> {
  const picture = await pictureOf(p.file, context);
  const sample = pictureSampler(picture, p.beyond as Wrap);
  const channel = CHANNELS[p.channel];
  const name = pictureKeptAs(p);
  const { mesh, paths, points, seats } = form;
  const color = new Float64Array(4);
  const readOn = async (places: Places, tints: Float32Array | null): Promise<Float32Array> => {
    const values = new Float32Array(places.count);
    for (let k = 0; k < places.count; k++) {
      if (k % 8192 === 8191) await context.yieldNow();
      sample(...places.at(k), color);
      values[k] = p.low + (p.high - p.low) * channel(color);
      // Where the picture is transparent, what has colours keeps them.
      if (tints) for (let c = 0; c < 3; c++) tints[3 * k + c] += (linearOf(color[c]) - tints[3 * k + c]) * color[3];
    }
    return values;
  };
  const named = <T extends { named: Named }>(of: T, domain: Attribute['domain'], values: Float32Array): Named => ({
    ...of.named,
    [name]: oneNumber(domain, values),
  });
  const placesOf = await placesIn(form, p, context);
  const skinPlaces = mesh && placesOf.mesh?.(mesh);
  const pathPlaces = paths && placesOf.paths?.(paths);
  if (p.mapping !== 'flat' && !skinPlaces && !pathPlaces)
    throw new Problem(
      p.mapping === 'skin' ? 'There is no skin here.' : 'There are no paths here.',
      'Choose another mapping.',
    );
  let [skin, copies] = [mesh, seats];
  if (mesh && skinPlaces) {
    const colors = p.tint ? (mesh.colors?.slice() ?? new Float32Array(mesh.positions.length).fill(1)) : null;
    const values = await readOn(skinPlaces, colors);
    skin = { ...mesh, colors: colors ?? mesh.colors, named: named(mesh, 'vertex', values) };
  }
  const inSpace = placesOf.loose;
  if (seats && inSpace) {
    const tints = p.tint ? (seats.tints?.slice() ?? new Float32Array(seats.positions.length).fill(1)) : null;
    const values = await readOn(inSpace(seats.positions), tints);
    copies = { ...seats, tints: tints ?? seats.tints, named: named(seats, 'copy', values) };
  }
  return {
    ...form,
    mesh: skin,
    paths: paths && pathPlaces ? { ...paths, named: named(paths, 'point', await readOn(pathPlaces, null)) } : paths,
    points:
      points && inSpace
        ? { ...points, named: named(points, 'point', await readOn(inSpace(points.positions), null)) }
        : points,
    seats: copies,
  };
}

/** Where things lie in the picture by the chosen mapping; what it says nothing of is left out. */
async function placesIn(
  form: Form,
  p: PictureValuesParams,
  context: StepContext,
): Promise<{
  mesh?: (mesh: Mesh) => Places;
  paths?: (paths: Paths) => Places;
  loose?: (positions: Float32Array) => Places;
}> {
  if (p.mapping === 'skin')
    return {
      mesh: (mesh) => {
        const mapped = skinMapping(mesh);
        // A window over the seam of a closed path counts on past 1.
        const within = ([x, y]: readonly [number, number]): [number, number] => [x, y > 1 ? y - 1 : y];
        return { count: vertexCount(mesh), at: (k) => within(mapped(k)) };
      },
    };
  if (p.mapping === 'paths') return { paths: alongPaths };
  const project = await projectionOf(p, form, context);
  const loose = (positions: Float32Array): Places => ({
    count: positions.length / 3,
    at: (k) => project(at(positions, k)),
  });
  return { mesh: ({ positions }) => loose(positions), paths: ({ positions }) => loose(positions), loose };
}

/** Paths side by side over the width of the picture, each from its bottom to its top. */
function alongPaths(paths: Paths): Places {
  const count = pathCount(paths);
  const column = new Float32Array(pointCount(paths));
  for (let path = 0; path < count; path++)
    column.fill((path + 0.5) / count, paths.offsets[path], paths.offsets[path + 1]);
  return { count: column.length, at: (k) => [column[k], paths.u[k]] };
}
