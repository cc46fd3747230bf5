import Sequencer from '@jest/test-sequencer';

/** Suites that take longest, so that none of them is left to one core at the end. */
const SLOW = [
  'evaluate/edits',
  'bake/src/starters',
  'bake/src/bake',
  'evaluate/extremes',
  'lessons/lessons',
  'topology/topology',
  'scene/damage',
  'steps/declared',
  'cuttings/stepsShown',
  'cuttings/cuttings',
  'storage/autosave',
  'document/editGuard',
];

const rank = ({ path }) => {
  const at = SLOW.findIndex((name) => path.includes(`${name}.test`));
  return at < 0 ? SLOW.length : at;
};

export default class SlowFirst extends Sequencer {
  async sort(tests) {
    const sorted = [...(await super.sort(tests))].sort((a, b) => rank(a) - rank(b));
    // Where the first failure ends it all, the other way round is quicker.
    return process.env.UNIT_ORDER === 'quick-first' ? sorted.reverse() : sorted;
  }
}
