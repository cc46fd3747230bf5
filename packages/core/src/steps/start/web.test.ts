import { pathCount } from '../../geometry/paths';
import { grownLength } from '../../curves/pathFrames';
import { at, distance } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { putFile, sceneOf, testEvaluator } from '../../testing';
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

test('pulses run out from the hub at an even speed, as far apart as they should be, and close over the range', async () => {
  const params = { links: 'tree', pulses: 0.8, pulseLength: 0.2, pulseSpeed: 0.5 };
  /** Distances from the hub of heads, where light is brightest. */
  const heads = async (frame: number): Promise<number[]> => {
    const { paths } = await web(params, frame);
    const [hub, pulse] = [paths!.named.hub.values, paths!.named.pulse.values];
    return Array.from(hub).filter((_, i) => pulse[i] > 0.9);
  };
  // The range is 144 frames of 24 a second: 0.5 a second fits three times exactly.
  for (const frame of [1, 17, 40])
    for (const away of await heads(frame)) {
      const passed = (0.5 * (frame - 1)) / 24;
      const off = away / 0.8 - passed;
      expect(Math.abs(off - Math.round(off)) * 0.8).toBeLessThan(0.03);
    }
  expect((await heads(1)).length).toBeGreaterThan(3);
  expect((await web(params, 145)).paths!.named.pulse.values).toEqual((await web(params, 1)).paths!.named.pulse.values);
  expect((await web({ links: 'tree' })).paths!.named.pulse).toBeUndefined();
});

test('what pulses glows where the light is, and nowhere else', async () => {
  const { mesh } = await form([
    newStep('web', { count: 20, links: 'tree', pulses: 0.8, pulseLength: 0.2 }),
    newStep('wire', {}),
    newStep('finish', { glow: 2, glowBy: 'attribute', glowAttribute: 'pulse' }),
  ]);
  const pulse = mesh!.named.pulse.values;
  for (let i = 0; i < pulse.length; i++) expect(mesh!.glow![i]).toBeCloseTo(2 * pulse[i] ** 2, 4);
  expect(Math.max(...mesh!.glow!)).toBeGreaterThan(1);
});

test('links from a table of pairs, beside those by hand; what names no two nodes is passed over', async () => {
  const scene = sceneOf([newStep('web', { count: 6, links: 'own', own: '1 2', pairs: 'pairs' })]);
  putFile(scene, 'pairs', 'table', 'from,to\n2,3\n5,4\n3,2\n7,1\n2,2\nx,1\n1.5,2\n');
  const [{ form: made, notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices).toEqual([]);
  // 1–2 by hand; 2–3 and 4–5 from the table: node 7 is not there, 3–2 is 2–3 again.
  expect(pathCount(made!.paths!)).toBe(3);
  const narrow = sceneOf([newStep('web', { count: 6, links: 'own', pairs: 'narrow' })]);
  putFile(narrow, 'narrow', 'table', '1\n2\n');
  const [wrong] = (await testEvaluator().evaluate(narrow, 1)).growths;
  expect(wrong.notices.map(({ what }) => what)).toEqual(['The table of links has one column only.']);
});
