import { mapped } from '../../geometry/filled';
import { random } from '../../fields/random';
import type { Form } from '../../geometry/form';
import { changedInLast, type Seats } from '../../geometry/seats';
import { at, distance } from '../../geometry/vec';
import { defineStep, numberField, scopeParam, type StepContext } from '../declare';
import { figure } from '../../format';

const seconds = numberField({ unit: 's', min: -1000, max: 1000, slider: [0, 4] });

export const offset = defineStep({
  kind: 'offset',
  family: 'place',
  label: 'Time offset',
  icon: 'M4 16A4 4 0 1 1 4 15.99M4 13.5V16L6 17M13 8A4 4 0 1 1 13 7.99M13 5.5V8L15 9',
  help: 'Each copy shows its item at a moment of its own: later by its number, its place, its distance from a guide, or at random; from its first frame when the front uncovers it; or over its whole life where copies are born and go.',
  takes: ['copies'],
  gives: ['copies'],
  params: {
    by: {
      type: 'choice',
      label: 'Later by',
      help: 'What makes one copy later than another.',
      options: [
        { value: 'front', label: 'When uncovered' },
        { value: 'number', label: 'Its number' },
        { value: 'along', label: 'Its place along' },
        { value: 'distance', label: 'Its distance' },
        { value: 'random', label: 'Chance' },
        { value: 'life', label: 'Its life' },
        { value: 'even', label: 'All alike' },
      ],
      default: 'front',
    },
    time: seconds(
      'Seconds',
      'Later by so much: from each number to the next, over the whole way, for each metre, at most by chance, or after the front.',
      0.1,
      { shown: (p) => p.by !== 'life' },
    ),
    guide: {
      type: 'guide',
      label: 'From',
      help: 'The guide that the distance is measured from; the origin where none is chosen.',
      default: null,
      shown: (p) => p.by === 'distance',
    },
    scope: scopeParam,
    repeat: seconds('Repeats after', 'The item begins again after so long; 0 lets it run as its own keys say.', 0, {
      min: 0,
    }),
  },
  moves: true,
  wants: (p) => (p.by === 'front' ? ['age'] : []),
  summary: (p) =>
    ({
      front: 'from its first frame as it is uncovered',
      number: `${figure(p.time)} s from each to the next`,
      along: `${figure(p.time)} s over the way`,
      distance: `${figure(p.time)} s a metre`,
      random: `up to ${figure(p.time)} s`,
      life: 'over its life',
      even: `${figure(p.time)} s`,
    })[p.by] ?? '',
  async run(form, p, context) {
    const seats = form.seats;
    // Copies that another growth has made are finished: only places laid here can be late.
    if (!seats) return form;
    const lag = await lagBy(p.by, p.time, p.guide, seats, context);
    const runs = RUNS.includes(p.by) || [-1, 1].some((by) => context.numberAt('time', context.frame + by) !== p.time);
    const late = mapped(
      Float32Array,
      seats.ids,
      (_, k) => (seats.late?.[k] ?? 0) + (runs ? lag(k) : Math.round(lag(k))),
    );
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
  },
});

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
