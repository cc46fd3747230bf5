import { type Coil, coilOf, coilRadius, type Planar, rolledFromMiddle, rolledStrip } from '../../curves/coil';
import { wholeBoundsOf } from '../../geometry/extent';
import type { Form } from '../../geometry/form';
import type { Vec3 } from '../../geometry/vec';
import type { StepContext } from '../declare';
import { eachPoint } from './eachPoint';
import type { RollUpParams } from './rollUp';

/** How much of a strip can be rolled up until the turns of the roll are as far from the middle of the room as half from each other. */
function untilTouching(coil: Coil, apart: number, room: number): number {
  let [low, high] = [0, Math.max(0, room)];
  for (let round = 0; round < 50; round++) {
    const half = (low + high) / 2;
    // The roll reaches back over where it begins by its radius, less how far beyond that its middle lies.
    if (half + coilRadius(coil, half) - coil.c + apart / 2 <= room) low = half;
    else high = half;
  }
  return low;
}

/** Where a height on the strip comes to lie: up and forward, with the direction there. */
type Lay = (y: number) => Planar;

/** A form rolled up. */
export async function runRollUp(form: Form, p: RollUpParams, context: StepContext): Promise<Form> {
  const bounds = wholeBoundsOf(form);
  if (!bounds) return form;
  const [low, high] = [bounds.min[1], bounds.max[1]];
  const foot = p.from === 'top' || p.from === 'middle' ? Math.min(high, low + p.exempt) : low;
  const middle = (foot + high) / 2;
  const coil = coilOf(p.apart, p.core);
  const [c, s] = [Math.cos((p.towards * Math.PI) / 180), Math.sin((p.towards * Math.PI) / 180)];

  /** Rolled up to `end`, which lies in the direction `way` along the strip: where a height comes to lie. */
  const strip = (length: number, end: number, way: 1 | -1): Lay => {
    const roll = rolledStrip(coil, length);
    const begins = end - way * length;
    const lay = (y: number): Planar => {
      const planar = roll(way * (y - begins));
      return { x: begins + way * planar.x, y: planar.y, tx: planar.tx, ty: way * planar.ty };
    };
    return lay;
  };
  /** The same with the stalk standing where it stood: all the rest moves, and what is below the roll follows. */
  const standing = (lay: Lay): Lay => {
    const { x, y, tx, ty } = lay(foot);
    return (height) => {
      if (height <= foot) return { x: height, y: 0, tx: 1, ty: 0 };
      const here = lay(height);
      const [dx, dy] = [here.x - x, here.y - y];
      return {
        x: foot + tx * dx + ty * dy,
        y: tx * dy - ty * dx,
        tx: tx * here.tx + ty * here.ty,
        ty: tx * here.ty - ty * here.tx,
      };
    };
  };
  /** Both halves round the middle, which stays where it is; what is not rolled leaves them straight up and down. */
  const fromMiddle = (length: number): Lay => {
    const lay = rolledFromMiddle(p.apart, p.core, length);
    return (y) => {
      const way = y >= middle ? 1 : -1;
      const planar = lay(Math.abs(y - middle));
      return { ...planar, x: middle + way * planar.x, y: way * planar.y };
    };
  };
  const rolled = (room: number): number => p.amount * Math.max(0, room);
  const half = rolled((high - foot) / 2);
  // Two rolls come together until they touch.
  const each = p.from === 'both' ? p.amount * untilTouching(coil, p.apart, (high - foot) / 2) : 0;
  const [above, below] = [strip(each, high, 1), strip(each, foot, -1)];
  const lays: Record<string, () => Lay> = {
    top: () => strip(rolled(high - foot), high, 1),
    foot: () => standing(strip(rolled(high - foot), foot, -1)),
    both: () => standing((y) => (y >= middle ? above(y) : below(y))),
    middle: () => fromMiddle(half),
  };
  const laid = lays[p.from]();
  // The points of a row mostly share their height.
  let height = NaN;
  let planar = laid(low);
  const at = (y: number): Planar => {
    if (y !== height) {
      height = y;
      planar = laid(y);
    }
    return planar;
  };
  // What stands off the strip does so square to it.
  const move = (place: Vec3): Vec3 => {
    const [x, z] = [place[0], place[2]];
    const { x: along, y: off, tx, ty } = at(place[1]);
    const across = x * c - z * s;
    const forward = x * s + z * c;
    const out = off + forward * tx;
    return [across * c + out * s, along - forward * ty, out * c - across * s];
  };
  return eachPoint(form, context, move, (place, _, slopes, small) => {
    const moved = move(place);
    const { x: along, y: off, tx, ty } = at(place[1]);
    slopes[0] = c * c + s * s * tx;
    slopes[1] = -s * ty;
    slopes[2] = s * c * (tx - 1);
    slopes[6] = s * c * (tx - 1);
    slopes[7] = -c * ty;
    slopes[8] = s * s + c * c * tx;
    // Along the strip it bends, and what stands off it turns along.
    const next = laid(place[1] + small);
    const forward = place[0] * s + place[2] * c;
    const out = (next.y - off + forward * (next.tx - tx)) / small;
    slopes[3] = out * s;
    slopes[4] = (next.x - along - forward * (next.ty - ty)) / small;
    slopes[5] = out * c;
    return moved;
  });
}
