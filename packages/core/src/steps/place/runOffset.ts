import { random } from '../../fields/random';
import { mapped } from '../../geometry/filled';
import type { Form } from '../../geometry/form';
import { changedInLast, type Seats } from '../../geometry/seats';
import { at, distance } from '../../geometry/vec';
import type { StepContext } from '../declare';
import type { OffsetParams } from './offset';

/** Copies that show their items at moments of their own. */
export async function runOffset(form: Form, p: OffsetParams, context: StepContext): Promise<Form> {
  const seats = form.seats;
  // Copies that another growth has made are finished: only places laid here can be late.
  if (!seats) return form;
  const lag = await lagBy(p.by, p.time, p.guide, seats, context);
  const runs = RUNS.includes(p.by) || [-1, 1].some((by) => context.numberAt('time', context.frame + by) !== p.time);
  const late = mapped(Float32Array, seats.ids, (_, k) => (seats.late?.[k] ?? 0) + (runs ? lag(k) : Math.round(lag(k))));
  const put = (values: Float32Array): Form => {
    const changed = { ...seats, late: values };
    return { ...form, seats: p.scope === 'last' ? changedInLast(seats, changed) : changed };
  };
  if (p.repeat <= 0) return put(late);
  // Each copy begins again at the first frame: what it shows comes round, not only by how much it is late.
  const round = Math.max(1, Math.round(p.repeat * context.fps));
  const since = context.sceneFrame - context.range[0];
  const again = mapped(Float32Array, late, (frames) => {
    const shown = (since - frames) % round;
    return since - (shown < 0 ? shown + round : shown);
  });
  return put(again);
}

/** What makes copies later that may change from frame to frame; by all else whole frames do, which copies share. */
const RUNS = ['distance', 'life'];

/** Frames by which each seat is late. */
async function lagBy(
  by: string,
  time: number,
  guide: string | null,
  seats: Seats,
  context: StepContext,
): Promise<(seat: number) => number> {
  const frames = time * context.fps;
  const { fps } = context;
  /** Frames since the first of the scene. */
  const passed = (): number => context.sceneFrame - context.range[0];
  switch (by) {
    case 'front': {
      const since = passed();
      return (k) => (Number.isFinite(seats.age[k]) ? since - seats.age[k] * fps : 0) + frames;
    }
    case 'number':
      return (k) => seats.number[k] * frames;
    case 'along':
      return (k) => seats.share[k] * frames;
    case 'distance': {
      const [from] = guide === null ? [[0, 0, 0] as const] : await context.places('guide');
      return (k) => distance(at(seats.positions, k), from ?? [0, 0, 0]) * frames;
    }
    case 'random': {
      const { seed } = context;
      return (k) => Math.floor(random(seed, seats.dice[k]) * (Math.abs(frames) + 1)) * Math.sign(frames);
    }
    case 'life': {
      const [since, [first, last]] = [passed(), context.range];
      return (k) => since - (seats.life?.[k] ?? seats.share[k]) * (last - first + 1);
    }
    default:
      return () => frames;
  }
}
