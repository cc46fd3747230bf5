import { NO_PARENT } from '../geometry/paths';
import { at, distance, type Vec3 } from '../geometry/vec';
import { type Bursting, burst } from './burst';

const HOW: Bursting = {
  count: 10,
  varyCount: 0,
  spread: Math.PI,
  childSpread: 1,
  children: 3,
  generations: 1,
  length: 1,
  varyLength: 0,
  shorter: 0.5,
  droop: 0,
  curve: 0,
  fades: false,
  thinner: 1,
  points: 4,
  seed: 1,
  most: 100,
};
const members = async (more: Partial<Bursting>): Promise<number | null> => {
  const made = await burst([{ place: [0, 0, 0], way: [0, 1, 0] }], { ...HOW, ...more });
  return made && made.offsets.length - 1;
};

test('there are as many members as are asked for, in each generation', async () => {
  expect(await members({})).toBe(10);
  expect(await members({ generations: 2 })).toBe(10 + 10 * 3);
  expect(await members({ generations: 3, most: 130 })).toBe(10 + 30 + 90);
});

test('one more than there may be is none at all, in whichever generation it comes', async () => {
  expect(await members({ most: 10 })).toBe(10);
  expect(await members({ most: 9 })).toBeNull();
  expect(await members({ generations: 3, most: 129 })).toBeNull();
  // So many more that nothing is begun.
  expect(await members({ generations: 3, most: 5 })).toBeNull();
});

test('what bursts from an end begins there, and names whose end it is', async () => {
  const made = (await burst([{ place: [0, 1, 0], way: [0, 1, 0] }], { ...HOW, generations: 3, points: 5, most: 200 }))!;
  const point = (i: number): Vec3 => at(made.positions, i);
  const count = made.offsets.length - 1;
  let named = 0;
  for (let p = 0; p < count; p++) {
    const parent = made.parent![p];
    const from = parent === NO_PARENT ? ([0, 1, 0] as const) : point(made.offsets[parent + 1] - 1);
    expect(distance(point(made.offsets[p]), from)).toBeLessThan(1e-6);
    if (parent !== NO_PARENT) named++;
  }
  expect(named).toBe(30 + 90);
});

test('a front goes along each member at one pace, from the end of its parent on, and is at the last end at 1', async () => {
  const made = (await burst([{ place: [0, 0, 0], way: [0, 1, 0] }], {
    ...HOW,
    generations: 2,
    varyLength: 0.4,
    curve: 0.3,
  }))!;
  const { offsets, parent, positions, arrival } = made;
  const count = offsets.length - 1;
  expect(Math.max(...arrival!)).toBeCloseTo(1, 6);
  const lengths = Array.from({ length: count }, (_, p) => {
    let sum = 0;
    for (let i = offsets[p] + 1; i < offsets[p + 1]; i++) sum += distance(at(positions, i), at(positions, i - 1));
    return sum;
  });
  const took = lengths.map((_, p) => arrival![offsets[p + 1] - 1] - arrival![offsets[p]]);
  const pace = took[0] / lengths[0];
  for (let p = 0; p < count; p++) {
    expect(took[p]).toBeCloseTo(pace * lengths[p], 5);
    const begins = parent![p] === NO_PARENT ? 0 : arrival![offsets[parent![p] + 1] - 1];
    expect(arrival![offsets[p]]).toBeCloseTo(begins, 5);
  }
});
