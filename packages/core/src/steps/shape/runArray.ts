import { framedForm, type Movement, movedForm, turnOf } from '../../curves/moveForm';
import type { Form } from '../../geometry/form';
import { emptiedForm, joinForms } from '../../geometry/joinForms';
import { faceCount } from '../../geometry/mesh';
import { pointCount } from '../../geometry/paths';
import { about, after, NO_TURN, type Turn, turnedBy } from '../../geometry/turns';
import { add, scale, sub, type Vec3 } from '../../geometry/vec';
import { axisOf } from '../axisParam';
import type { StepContext } from '../declare';
import type { ArrayParams } from './array';

/** The smallest size of one that comes up from nothing. */
const LEAST = 1e-4;

/** A form repeated, each at a moment of its own where they are staggered. */
export async function runArray(form: Form, p: ArrayParams, context: StepContext): Promise<Form> {
  const movements = p.as === 'grid' ? gridOf(p) : p.as === 'circle' ? circleOf(p) : lineOf(p);
  claim(form, movements.length, context);
  const forms: Form[] = [];
  for (const [k, movement] of movements.entries()) {
    await context.yieldNow();
    const late = k * p.delay;
    const shown = late > 0 ? withLateness(await context.inputBefore(late), late) : form;
    forms.push(k === 0 && isNone(movement) ? framedForm(shown) : movedForm(shown, movement));
  }
  if (forms.length === 0) return emptiedForm(form);
  return joinForms(forms, () => context.yieldNow());
}

/** Holds what there will be to the budgets; each moment is taken to be as much as the first. */
function claim({ paths, mesh, points, seats }: Form, count: number, context: StepContext): void {
  const lower = 'Count, or the numbers of what is repeated';
  context.claim('points', count * ((paths ? pointCount(paths) : 0) + (points?.ids.length ?? 0)), lower);
  if (mesh) context.claim('faces', count * faceCount(mesh), lower);
  if (seats) context.claim('copies', count * seats.ids.length, lower);
}

/** What is copied shows its item as much later. */
const withLateness = (form: Form, late: number): Form =>
  form.seats
    ? {
        ...form,
        seats: {
          ...form.seats,
          late: form.seats.ids.length > 0 ? lateBy(form.seats.late, form.seats.ids.length, late) : null,
        },
      }
    : form;

function lateBy(before: Float32Array | null, count: number, late: number): Float32Array {
  const out = new Float32Array(count);
  for (let k = 0; k < count; k++) out[k] = (before ? before[k] : 0) + late;
  return out;
}

const isNone = ({ turn, size, move }: Movement): boolean =>
  size === 1 && turn[3] === 1 && move.every((value) => value === 0);

/** Sizes of so many: each by a factor of the one before, and the last of a part of one only so large. */
const sizesOf = (count: number, each: number): number[] =>
  Array.from({ length: Math.ceil(count - 1e-9) }, (_, k) => each ** k * Math.max(LEAST, Math.min(1, count - k)));

/** Each turned, scaled and moved further than the one before, in the directions of the first. */
function lineOf(p: ArrayParams): Movement[] {
  const step = turnOf(p.turnX, p.turnY, p.turnZ);
  let turn: Turn = NO_TURN;
  return sizesOf(p.count, p.scale).map((size, k) => {
    if (k > 0) turn = after(step, turn);
    return { turn, size, move: [k * p.eachX, k * p.eachY, k * p.eachZ] };
  });
}

/** Each turned further about an axis; it is scaled about its own place, and the circle with it. */
function circleOf(p: ArrayParams): Movement[] {
  const axis = axisOf(p.axis);
  const through: Vec3 = [p.throughX, p.throughY, p.throughZ];
  const step = p.full ? (2 * Math.PI) / Math.max(1, p.count) : (p.angle * Math.PI) / 180;
  return sizesOf(p.count, p.scale).map((size, k) => {
    const turn = about(axis, k * step);
    const move = add(sub(through, turnedBy(turn, scale(through, size))), scale(axis, k * p.rise));
    return { turn, size, move };
  });
}

function gridOf(p: ArrayParams): Movement[] {
  const counts = [p.countX, p.countY, p.countZ];
  const back = counts.map((count) => (p.centre ? (count - 1) / 2 : 0));
  const movements: Movement[] = [];
  for (let z = 0; z < counts[2]; z++)
    for (let y = 0; y < counts[1]; y++)
      for (let x = 0; x < counts[0]; x++)
        movements.push({
          turn: NO_TURN,
          size: 1,
          move: [(x - back[0]) * p.apartX, (y - back[1]) * p.apartY, (z - back[2]) * p.apartZ],
        });
  return movements;
}
