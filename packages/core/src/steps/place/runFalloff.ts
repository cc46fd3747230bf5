import { type Attribute, type Attributed, columnNamed, oneNumber, type Table } from '../../geometry/attributes';
import { type Form, POINTS } from '../../geometry/form';
import { vertexCount } from '../../geometry/mesh';
import { vertexValues } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { pointCount } from '../../geometry/paths';
import { changedInLast, SEATS } from '../../geometry/seats';
import { profileCurve } from '../../geometry/profile';
import { easeAt, type EaseName } from '../../time/easing';
import type { StepContext } from '../declare';
import { DRAWN, type FalloffParams, weightKeptAs } from './falloff';
import { driven, type Weighed, weightOf } from './falloffActs';

/** What a falloff makes of all that is there: it drives copies, or every place keeps its weight. */
export async function runFalloff(form: Form, p: FalloffParams, context: StepContext): Promise<Form> {
  if (p.drives === 'attribute') return kept(form, p, context);
  const { seats } = form;
  if (!seats) {
    context.tell(
      'There are no copies to change.',
      'Set Changes to An attribute, or put Falloff behind a step that places copies.',
    );
    return form;
  }
  const { ids: rows, positions, age, share } = seats;
  const places = { count: rows.length, positions, age, share, values: oneOf(SEATS, seats) };
  const weight = await weights(p, places, seats.weight, context);
  const changed = { ...driven(p, seats, weight, context.fps), weight };
  return { ...form, seats: p.scope === 'last' ? changedInLast(seats, changed) : changed };
}

/** Everything that is there, with the weight of each place as an attribute. */
async function kept(form: Form, p: FalloffParams, context: StepContext): Promise<Form> {
  const name = weightKeptAs(p);
  const { mesh, paths, points, seats } = form;
  const keep = async <T extends { named: Readonly<Record<string, Attribute>> }>(
    on: T,
    domain: Attribute['domain'],
    places: Weighed,
  ): Promise<T> => {
    const own = await weights(p, places, places.values(name), context);
    return { ...on, named: { ...on.named, [name]: oneNumber(domain, own) } };
  };
  return {
    ...form,
    mesh:
      mesh &&
      (await keep(mesh, 'vertex', {
        count: vertexCount(mesh),
        positions: mesh.positions,
        age: mesh.age,
        share: mesh.u,
        values: (attribute) => vertexValues(mesh, attribute),
      })),
    paths:
      paths &&
      (await keep(paths, 'point', {
        count: pointCount(paths),
        positions: paths.positions,
        age: paths.age,
        share: paths.u,
        values: (attribute) => pointValues(paths, attribute),
      })),
    points:
      points && (await keep(points, 'point', { ...points, count: points.ids.length, values: oneOf(POINTS, points) })),
    seats: seats && (await keep(seats, 'copy', { ...seats, count: seats.ids.length, values: oneOf(SEATS, seats) })),
  };
}

const oneOf =
  <T extends Table>(table: T, from: Attributed<T>): Weighed['values'] =>
  (name) => {
    const column = columnNamed(table, from, name);
    return column?.type.width === 1 ? column.values : null;
  };

/** Weights of places, eased, and combined with those that they have already. */
async function weights(
  p: FalloffParams,
  places: Weighed,
  earlier: ArrayLike<number> | null,
  context: StepContext,
): Promise<Float32Array> {
  const weigh = await weightOf(p, places, context);
  const eased = p.ease === DRAWN ? profileCurve(p.curve) : (share: number) => easeAt(p.ease as EaseName, share);
  const weight = new Float32Array(places.count);
  for (let k = 0; k < weight.length; k++) {
    if (k % 4096 === 0) await context.breathe();
    const own = eased(weigh(k));
    const here = p.least + (1 - p.least) * (p.invert ? 1 - own : own);
    weight[k] = earlier ? combined(here, earlier[k], p.combine) : here;
  }
  return weight;
}

function combined(here: number, before: number, how: FalloffParams['combine']): number {
  switch (how) {
    case 'times':
      return here * before;
    case 'plus':
      return Math.min(1, here + before);
    case 'larger':
      return Math.max(here, before);
    default:
      return here;
  }
}
