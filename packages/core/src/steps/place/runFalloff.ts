import { type Attribute, oneNumber } from '../../geometry/attributes';
import type { Form } from '../../geometry/form';
import { changedInLast, SEATS } from '../../geometry/seats';
import { profileCurve } from '../../geometry/profile';
import { easeAt, type EaseName } from '../../time/easing';
import type { StepContext } from '../declare';
import { DRAWN, type FalloffParams, weightKeptAs } from './falloff';
import { driven, type Weighed, weightOf } from './falloffActs';
import { changedForm, oneOf, pointPlaces, pointsOfPaths, verticesOf } from './falloffOnForms';

/** What a falloff makes of all that is there: it drives copies, or every place keeps its weight. */
export async function runFalloff(form: Form, p: FalloffParams, context: StepContext): Promise<Form> {
  if (p.drives === 'attribute') return kept(form, p, context);
  const { seats } = form;
  if (!seats)
    return changedForm(form, p, (places) => weights(p, places, places.values(weightKeptAs(p)), context), context);
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
    mesh: mesh && (await keep(mesh, 'vertex', verticesOf(mesh))),
    paths: paths && (await keep(paths, 'point', pointsOfPaths(paths))),
    points: points && (await keep(points, 'point', pointPlaces(points))),
    seats: seats && (await keep(seats, 'copy', { ...seats, count: seats.ids.length, values: oneOf(SEATS, seats) })),
  };
}

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
    if (k % 4096 === 0) await context.yieldNow();
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
