import { random } from '../fields/random';
import { add, at, byAxis, distance, dot, scale, sub, unit, type Vec3 } from '../geometry/vec';
import { type Colonising, coloniseSpace } from './colonise';

const tree = (more: Partial<Colonising>) =>
  coloniseSpace({
    attractors: new Float32Array(0),
    roots: [[0, 0, 0]],
    reach: 10,
    reached: 0.05,
    step: 0.1,
    bias: [0, 0, 0],
    leaning: 0,
    most: 5000,
    ...more,
  });

// One round of space colonisation as Runions, Lane and Prusinkiewicz (2007) print it, section 2: every place draws the node that is
// nearest, a node grows along the normalised sum of the normalised ways to the places that draw it.
test('in a round each place draws the nearest node, and a node goes along the mean of what draws it', async () => {
  let looked = 0;
  for (let seed = 0; seed < 300; seed++) {
    const some = (k: number): Vec3 => byAxis((c) => 6 * random(seed, k, c) - 3);
    const roots = Array.from({ length: 2 + (seed % 3) }, (_, k) => some(k));
    const places = Array.from({ length: 1 + (seed % 7) }, (_, k) => some(100 + k));
    const bias = unit(some(200));
    const leaning = seed % 2 === 0 ? 0 : 0.4;
    const drawn = roots.map((): Vec3 => [0, 0, 0]);
    // Neither roots on one another, nor places that are reached from the first, or as near to two.
    let plain = roots.every((a, i) => roots.slice(i + 1).every((b) => distance(a, b) > 0.2));
    for (const one of places) {
      const own = roots.map((root) => distance(one, root));
      const [least, next] = [...own].sort((a, b) => a - b);
      plain &&= least > 0.2 && next - least > 1e-3;
      const nearest = own.indexOf(least);
      drawn[nearest] = add(drawn[nearest], unit(sub(one, roots[nearest])));
    }
    const called = drawn.flatMap((sum, i) => (dot(sum, sum) > 0 ? [{ sum, root: roots[i], i }] : []));
    // Drawn evenly to both sides there is no mean.
    if (!plain || called.some(({ sum }) => dot(sum, sum) < 1e-2)) continue;
    looked++;
    const { positions, parents, births } = await tree({
      attractors: Float32Array.from(places.flat()),
      roots,
      bias,
      leaning,
    });
    const first = [...births.keys()].filter((k) => k >= roots.length && births[k] === births[roots.length]);
    expect(first.map((k) => parents[k]).sort()).toEqual(called.map(({ i }) => i));
    for (const k of first) {
      const { sum, root } = called.find(({ i }) => i === parents[k])!;
      const way = unit(add(unit(sum), scale(bias, leaning)));
      expect(distance(at(positions, k), add(root, scale(way, 0.1)))).toBeLessThan(1e-5);
    }
  }
  expect(looked).toBeGreaterThan(200);
});

test('what is beyond reach draws in a straight line, until it is reached, and not beyond', async () => {
  const goal: Vec3 = [1.2, -0.9, 2];
  const length = Math.hypot(...goal);
  const { positions, parents } = await tree({ attractors: Float32Array.from(goal), reach: 0.5 });
  const count = Math.ceil((length - 0.05) / 0.1 - 1e-6);
  expect([...parents]).toEqual(Array.from({ length: count + 1 }, (_, k) => k - 1));
  for (let k = 0; k <= count; k++)
    expect(distance(at(positions, k), scale(unit(goal, [0, 0, 0]), 0.1 * k))).toBeLessThan(1e-5);
});

test('what is drawn evenly to both sides goes to one of them, and then to the other', async () => {
  const { positions } = await tree({ attractors: Float32Array.of(1, 0, 0, -1, 0, 0) });
  const near = (goal: Vec3): number =>
    Math.min(...Array.from({ length: positions.length / 3 }, (_, k) => distance(at(positions, k), goal)));
  expect(near([1, 0, 0])).toBeLessThan(0.06);
  expect(near([-1, 0, 0])).toBeLessThan(0.06);
});
