import Sequencer from '@jest/test-sequencer';

/** Suites that take longest, so that none of them is left to one core at the end. */
const SLOW = [
  'evaluate/edits',
  'bake/src/starters',
  'bake/src/bake',
  'scene/damage',
  'skin/sweeping',
  'lessons/lessons',
  'cuttings/cuttings',
];

const rank = ({ path }) => {
  const at = SLOW.findIndex((name) => path.includes(`${name}.test`));
  return at < 0 ? SLOW.length : at;
};

export default class SlowFirst extends Sequencer {
  async sort(tests) {
    return [...(await super.sort(tests))].sort((a, b) => rank(a) - rank(b));
  }
}
