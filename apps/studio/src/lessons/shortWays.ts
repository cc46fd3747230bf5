import type { Lesson, Move } from './lesson';

/** The quickest way to the like of what a lesson comes to: a whole piece, or a start with a cutting on it. */
export type ShortWay = readonly (Move | { cutting: string })[];

/** By the lesson's id. */
export const SHORT_WAYS: Readonly<Record<string, ShortWay>> = {
  'anemone-sway': [{ begin: 'phyllotaxis' }, { cutting: 'head-spines' }],
  'turban-shell': [{ cutting: 'shell' }],
  'sonar-bars': [{ cutting: 'dancing-bars' }],
  'tether-burn': [{ cutting: 'burning-line' }],
  'brain-coral': [{ begin: 'fractal' }],
  'kelp-frond': [{ cutting: 'unrolling-stem' }],
  'mooring-chain': [{ cutting: 'hanging-chain' }],
  'sea-lily': [{ cutting: 'endless-blossom' }],
  'urchin-head': [
    { begin: 'phyllotaxis' },
    { set: 'phyllotaxis', of: 'Phyllotaxis', values: { which: 'dome', count: 1200 } },
    { cutting: 'head-spines' },
  ],
  'barnacle-rock': [{ cutting: 'reef-rock' }],
  'eel-run': [{ cutting: 'creature' }],
  'pier-planks': [{ cutting: 'falling-pier' }],
  'wreck-reveal': [{ cutting: 'wire-then-solid' }],
  'barnacle-spread': [{ begin: 'form' }, { cutting: 'barnacles' }],
  'kelp-forest': [{ cutting: 'rising-forest' }],
  'overgrown-figurehead': [
    { begin: 'form' },
    { set: 'form', of: 'Form', values: { file: 'shipped:figurehead' } },
    { cutting: 'barnacles' },
  ],
  'sea-fern': [{ begin: 'rules' }],
  'lantern-vine': [{ begin: 'rules' }, { cutting: 'tip-blossoms' }],
  'plankton-web': [{ begin: 'web' }],
  'fan-coral': [{ cutting: 'coral' }],
  'lettuce-coral': [{ begin: 'frill' }],
};

/** How many things are done: a growth begun, a step added or deleted, a value set, a piece planted, each one. */
export const actionsOf = (moves: ShortWay): number =>
  moves.reduce((sum, move) => {
    if ('play' in move) return sum;
    return sum + ('values' in move ? Object.keys(move.values).length : 1);
  }, 0);

/** How many actions a lesson takes, every value typed. */
export const actionsIn = ({ steps }: Lesson): number => actionsOf(steps.flatMap(({ moves }) => moves));
