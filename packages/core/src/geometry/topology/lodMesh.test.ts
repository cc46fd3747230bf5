import { ball, box } from '../../surfaces/make/solids';
import { blade } from '../../surfaces/make/bladeMesh';
import { makeLod } from './lodMesh';
import { areaAndVolume } from '../mesh';

const load = ({ positions, indices }: { positions: Float32Array; indices: Uint32Array }): number =>
  (positions.length + indices.length) / 3;

test('a light mesh is left as it is', () => {
  const cube = box(1, 1, 1);
  expect(makeLod(cube, load(cube))).toBe(cube);
});

test('a ball keeps its shape with a small part of its faces, and none of them is folded up', () => {
  const whole = ball(1, 64);
  const light = makeLod(whole, 700)!;
  expect(load(light)).toBeLessThanOrEqual(700);
  expect(load(light)).toBeGreaterThan(200);
  const { volume } = areaAndVolume({ ...whole, ...light, uvs: whole.uvs });
  expect(Math.abs(volume)).toBeGreaterThan(0.85 * ((4 / 3) * Math.PI));
  expect(Math.abs(volume)).toBeLessThan(1.1 * ((4 / 3) * Math.PI));
  for (let i = 0; i < light.positions.length; i += 3) {
    const [p, n] = [light.positions.subarray(i, i + 3), light.normals.subarray(i, i + 3)];
    expect(Math.hypot(...n)).toBeCloseTo(1, 5);
    expect((p[0] * n[0] + p[1] * n[1] + p[2] * n[2]) / Math.hypot(...p)).toBeGreaterThan(0.9);
  }
  for (let f = 0; f < light.indices.length; f += 3) expect(new Set(light.indices.subarray(f, f + 3)).size).toBe(3);
});

test('a leaf becomes a few faces as long as it was; what leaves no shape is told', () => {
  const leaf = blade({
    length: 0.2,
    width: 0.06,
    outline: (t) => 4 * t * (1 - t),
    stalk: 0,
    fold: 0,
    cup: 0,
    droop: 0,
    thick: 0,
    rows: 24,
    columns: 8,
  });
  const light = makeLod(leaf, 20)!;
  expect(load(light)).toBeLessThanOrEqual(20);
  const heights = light.positions.filter((_, i) => i % 3 === 1);
  expect(Math.max(...heights) - Math.min(...heights)).toBeCloseTo(0.2, 5);
  expect(makeLod(leaf, 2)).toBeNull();
});

test('colours and glow are those of the middle', () => {
  const whole = ball(1, 48);
  const n = whole.positions.length / 3;
  // Red by height, as a straight line: it still is one, in the middle of each cell.
  const colors = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) colors[3 * i] = (whole.positions[3 * i + 1] + 1) / 2;
  // Texture coordinates too: height and height again, turned round.
  const uvs = Float32Array.from({ length: 2 * n }, (_, i) => {
    const height = (whole.positions[3 * Math.floor(i / 2) + 1] + 1) / 2;
    return i % 2 === 0 ? height : 1 - height;
  });
  const light = makeLod({ ...whole, colors, uvs, glow: new Float32Array(n).fill(0.3) }, 600)!;
  for (let i = 0; i < light.glow!.length; i++) {
    expect(Math.abs(light.colors![3 * i] - (light.positions[3 * i + 1] + 1) / 2)).toBeLessThan(0.06);
    expect(light.glow![i]).toBeCloseTo(0.3, 5);
    expect(light.uvs![2 * i]).toBeCloseTo(light.colors![3 * i], 5);
    expect(light.uvs![2 * i + 1]).toBeCloseTo(1 - light.colors![3 * i], 5);
  }
});
