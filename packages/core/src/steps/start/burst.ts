import { unit } from '../../geometry/vec';
import { Problem } from '../../problem';
import { defineStep, numberField, type NumberParam, type ParamSpecs, place } from '../declare';
import { formatCount } from '../../format';
import { beginParams } from './beginParams';

const share = numberField({ unit: 'share', min: 0, max: 1 });
const degrees = numberField({ unit: 'deg', min: 0, max: 180 });
const whole = numberField({ unit: 'count', min: 1, max: 1000, whole: true });
const factorField = numberField({ unit: 'share', min: 0, max: 4 });
const again = (p: Record<string, unknown>): boolean => Number(p.generations) > 1;
const against = (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam =>
  factorField(label, help, value, { slider: [0, 1], shown: again, ...more });

const params = {
  ...beginParams,
  ...place('way', 'Way', 'Which way it bursts, where the growth it begins at says nothing of it.', [0, 1, 0]),
  count: whole('Count', 'How many members burst at once.', 14, { slider: [1, 80] }),
  varyCount: share('Vary count', 'By which share that differs from burst to burst.', 0.3),
  spread: degrees('Spread', 'How far they spread about the way: 90 half round, 180 all round.', 90),
  length: numberField({ unit: 'm', min: 0.001, max: 1000 })('Length', 'Of a member of the first burst.', 0.8, {
    slider: [0.05, 4],
  }),
  varyLength: share('Vary length', 'By which share lengths differ.', 0.35),
  generations: whole('Bursts', 'How often they burst: at 2 and more members burst again at their ends.', 3, {
    max: 8,
    slider: [1, 5],
  }),
  children: whole('Next count', 'How many burst from a member’s end.', 4, { slider: [1, 12], shown: again }),
  childSpread: degrees('Next spread', 'How far those spread about the way that the member came.', 45, {
    shown: again,
  }),
  shorter: against('Shorter', 'How long they are against the member.', 0.55),
  thinner: against('Thinner', 'How thick they are against the member.', 0.6),
  droop: factorField('Droop', 'How far the end of a member hangs down, of its length; below 0 it rises.', 0.15, {
    min: -4,
    slider: [-1, 1],
  }),
  curve: factorField('Bow', 'How far the end of a member bows, each to a side of its own, of its length.', 0.1, {
    slider: [0, 1],
  }),
  ends: {
    type: 'choice',
    label: 'Ends',
    help: 'Members stay as thick as they are, or thin out to nothing.',
    options: [
      { value: 'stop', label: 'Stop' },
      { value: 'fade', label: 'Fade out' },
    ],
    default: 'stop',
  },
  points: whole('Points', 'How many points a member is made of.', 14, { min: 2, slider: [2, 40] }),
} as const satisfies ParamSpecs;

/** Members that there may be at most. */
const MOST = 20_000;

export const burst = defineStep({
  kind: 'burst',
  family: 'start',
  held: true,
  label: 'Burst',
  use: 'Branches and webs',
  icon: 'M10 16V10M10 10 4.5 6.5M10 10 7.5 4M10 10 12.5 4M10 10 15.5 6.5M4.5 6.5 2.5 6.5M4.5 6.5 4 4.5M15.5 6.5 17.5 6.5M15.5 6.5 16 4.5',
  help: 'Members burst from a place or from the points of a growth, straight, bowed or drooping, and burst again at their ends. Grow runs through all of it: what bursts from an end waits until it is there.',
  takes: [],
  gives: ['paths'],
  parts: {
    'Later bursts': ['children', 'childSpread', 'shorter', 'thinner'],
    Variation: ['varyCount', 'varyLength'],
    'Shape of members': ['droop', 'curve', 'ends', 'points'],
  },
  params,
  branches: true,
  writes: () => ['generation'],
  summary: (p) => `${formatCount(p.count, 'member')}, ${formatCount(p.generations, 'burst')}`,
  async run(form, p, context) {
    const [curves, { beginningsOf }, { startWith }] = await Promise.all([
      import('../../curves/burst'),
      import('./beginnings'),
      import('./startWith'),
    ]);
    const radians = Math.PI / 180;
    const places = await beginningsOf(p, unit([p.wayX, p.wayY, p.wayZ]), context);
    // Each has a member at least.
    const begins = Array.from({ length: Math.min(places.length, MOST + 1) }, (_, k) => places.at(k));
    const how = {
      ...p,
      spread: p.spread * radians,
      childSpread: p.childSpread * radians,
      fades: p.ends === 'fade',
      seed: context.seed,
      most: MOST,
    };
    const made = await curves.burst(begins, how, () => context.yieldNow());
    if (!made)
      throw new Problem(
        `It would have more than ${MOST.toLocaleString('en-GB')} members.`,
        'Lower Count, Next count or Bursts.',
      );
    context.claim('points', made.s.length, 'Count, Bursts or Points');
    return startWith(form, made);
  },
});
