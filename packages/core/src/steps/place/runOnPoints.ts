import { hash, random } from '../../fields/random';
import { columnNamed } from '../../geometry/attributes';
import { pickColumns } from '../../geometry/carrier';
import { type Form, POINTS } from '../../geometry/form';
import { unwritten } from '../../geometry/meshAttributes';
import { profileTable, readTable } from '../../geometry/profile';
import { joinSeats, SeatList, type Seats } from '../../geometry/seats';
import { about, after, between, fromAxes, type Turn, turnAt } from '../../geometry/turns';
import { at, sub, unit } from '../../geometry/vec';
import type { StepContext } from '../declare';
import type { Items } from './items';
import type { OnPointsParams } from './onPoints';
import { turnPattern } from './turnPattern';

/** A seat on every point of a form that has a size, behind the seats that it has. */
export async function seatsOnPoints(form: Form, items: Items, p: OnPointsParams, context: StepContext): Promise<Seats> {
  const points = form.points!;
  const known = p.mix === 'attribute' && items.shapes.length > 1 ? columnNamed(POINTS, points, p.mixBy) : null;
  if (p.mix === 'attribute' && items.shapes.length > 1 && (!known?.values || known.type.width !== 1))
    throw unwritten(p.mixBy);
  const turns = turnPattern(p.turns);
  const [sizes, leans] = [profileTable(p.sizeAlong, 257), profileTable(p.leanAlong, 257)];
  const [goal] = p.facing === 'guide' && p.toward !== null ? await context.places('toward') : [null];
  const seats = new SeatList(items.shapes.map(({ id }) => id));
  context.claim('copies', points.ids.length, 'the number of points');
  const { seed } = context;
  const kept: number[] = [];
  for (let k = 0; k < points.ids.length; k++) {
    if (k % 4096 === 0) await context.yieldNow();
    if (points.size[k] === 0) continue;
    kept.push(k);
    // Whatever differs from one to the next hangs on the same: then heads without end close.
    const order = points.dice[k];
    const number = hash(seed, order);
    const share = points.share[k];
    const position = at(points.positions, k);
    const stands: Turn = goal
      ? between([0, 1, 0], unit(sub(goal, position)))
      : p.facing === 'upright'
        ? fromAxes([1, 0, 0], [0, 1, 0])
        : turnAt(points.turns, k);
    const tilt = p.lean * readTable(leans, share) + p.varyLean * (2 * random(number, 3) - 1);
    const turn = turns.at(order) + (p.varyTurn * Math.PI * (2 * random(number, 2) - 1)) / 180;
    seats.add({
      growth: items.at(order, number, known?.values?.[k]),
      id: points.ids[k],
      dice: order,
      number: order,
      row: 0,
      position,
      turn: after(stands, after(about([1, 0, 0], (-tilt * Math.PI) / 180), about([0, 1, 0], turn))),
      size: p.size * points.size[k] * readTable(sizes, share) * (1 - p.vary * random(number, 1)),
      share,
      age: points.age ? points.age[k] : Infinity,
      life: points.life ? points.life[k] : null,
      variant: items.variant(number),
    });
  }
  // Copies know what their points do.
  const { named } = pickColumns(POINTS, points, 'point', kept);
  const placed = {
    ...seats.done(),
    named: Object.fromEntries(
      Object.entries(named).map(([name, attribute]) => [name, { ...attribute, domain: 'copy' as const }]),
    ),
  };
  return joinSeats(form.seats, placed);
}
