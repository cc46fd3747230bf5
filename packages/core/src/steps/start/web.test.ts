import { grownLength } from '../../curves/pathFrames';
import { at, distance } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import { type ParamValue } from '../../scene/schema';
import { form, grows } from '../../../test/paths';

const web = (params: Record<string, ParamValue>, frame = 1) => form([newStep('web', { count: 40, ...params })], frame);

test('it grows out at an even pace: a star from its hub by as much each frame, until its shortest link is done', async () => {
  const lengths = await Promise.all(
    [1, 6, 11, 16].map(async (frame) =>
      grownLength((await web({ links: 'hub', grown: grows(0, 1), swell: 0 }, frame)).paths),
    ),
  );
  expect(lengths[0]).toBe(0);
  expect(lengths[2] / lengths[1]).toBeCloseTo(2, 3);
});

test('nothing that has come goes again, nodes swell and never shrink, and at the end all is there', async () => {
  const whole = await web({ links: 'between' });
  let [length, nodes] = [0, 0];
  const sizes = new Map<number, number>();
  for (const frame of [1, 15, 30, 45, 60, 75, 90, 101]) {
    const { paths, points } = await web({ links: 'between', grown: grows(0, 1) }, frame);
    expect(grownLength(paths)).toBeGreaterThanOrEqual(length);
    length = grownLength(paths);
    points?.ids.forEach((id, k) => {
      expect(points.size[k]).toBeGreaterThanOrEqual(sizes.get(id) ?? 0);
      sizes.set(id, points.size[k]);
    });
    nodes = points?.ids.length ?? 0;
  }
  expect(nodes).toBe(40);
  expect(length).toBeCloseTo(grownLength(whole.paths), 4);
  for (const size of sizes.values()) expect(size).toBeCloseTo(1, 5);
});

test('links follow their nodes however these drift, and the drift closes over the range', async () => {
  const params = { drift: 0.2, rate: 0.5, links: 'nearest', shape: 'sag' };
  const still = await web({ links: 'nearest', shape: 'sag' });
  for (const frame of [1, 37, 90]) {
    const { paths, points } = await web(params, frame);
    // The same links, whatever moves: they are made before.
    expect([...paths!.ids].sort()).toEqual([...still.paths!.ids].sort());
    const places = Array.from(points!.ids.keys(), (k) => at(points!.positions, k));
    for (let p = 0; p < paths!.ids.length; p++)
      for (const i of [paths!.offsets[p], paths!.offsets[p + 1] - 1])
        expect(Math.min(...places.map((place) => distance(place, at(paths!.positions, i))))).toBeLessThan(1e-5);
  }
  const [first, end] = [(await web(params, 1)).points!, (await web(params, 145)).points!];
  for (let k = 0; k < 40; k++) expect(distance(at(first.positions, k), at(end.positions, k))).toBeLessThan(1e-5);
});

test('a sagging link hangs through by a share of its length, in the middle', async () => {
  const { paths } = await web({
    count: 2,
    links: 'hub',
    shape: 'sag',
    bow: 0.2,
    width: 3,
    height: 0.001,
    depth: 0.001,
    where: 'box',
  });
  const [a, b] = [at(paths!.positions, 0), at(paths!.positions, paths!.s.length - 1)];
  const middle = at(paths!.positions, (paths!.s.length - 1) / 2);
  expect((a[1] + b[1]) / 2 - middle[1]).toBeCloseTo(0.2 * distance(a, b), 3);
});

test('nodes are the points of another growth where one is chosen', async () => {
  const { points } = await form([newStep('web', { where: 'growth', growth: 'other', links: 'tree' })], 1, (scene) =>
    scene.growths.push({ ...scene.growths[0], id: 'other', steps: [newStep('phyllotaxis', { count: 30 })] }),
  );
  expect(points!.ids).toHaveLength(30);
});
