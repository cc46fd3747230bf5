import { marksOf } from './marks';
import { podOutline } from './pod';
import { exactFrame, frameAt, panScale, scaleOf, ticks, xOf, zoomScale } from '../state/document/timeScale';

/** Half-heights of a pod's outline along its upper edge. */
const halves = (path: string, height: number): number[] =>
  path
    .slice(1, -1)
    .split('L')
    .slice(0, path.split('L').length / 2)
    .map((pair) => height / 2 - Number(pair.split(' ')[1]));

test("a pod's half-height follows the share that was measured", () => {
  const found = halves(podOutline(Float32Array.of(0, 0.5, 1), 100, 30).known, 30);
  expect(found[2]).toBeGreaterThan(found[1]);
  expect(found[1] - found[0]).toBeCloseTo(found[2] - found[1], 1);
});

test('frames not measured yet are no part of the band: a line leads over them', () => {
  const { known, unknown } = podOutline(Float32Array.of(0.5, NaN, NaN, 1, 1, NaN), 100, 30);
  // Two bands: the first frame alone, the fourth and fifth.
  expect(known.split('M').slice(1)).toHaveLength(2);
  expect(known.match(/[\d.]+ (?=[\d.]+[LZ])/g)!.map(Number)).toEqual([0, 0, 60, 80, 80, 60]);
  expect(unknown).toBe('M0.0 15H60.0M80.0 15H100.0');
  expect(podOutline(new Float32Array(4).fill(NaN), 90, 30)).toEqual({ known: '', unknown: 'M0.0 15H90.0' });
  expect(podOutline(Float32Array.of(0, 1), 90, 30).unknown).toBe('');
});

test("pixels and frames are each other's inverse, and stay in the range", () => {
  const scale = scaleOf([1, 144], 924);
  for (const frame of [1, 2, 77, 144]) expect(frameAt(scale, xOf(scale, frame))).toBe(frame);
  expect([frameAt(scale, -50), frameAt(scale, 5000)]).toEqual([1, 144]);
});

describe('marks of keys', () => {
  const scale = scaleOf([1, 20000], 924);
  test('few keys have one each, however close', () => {
    const frames = [5, 6, 7, 900, 19999];
    expect(marksOf(frames, scale)).toEqual(frames.map((frame, k) => ({ x: xOf(scale, frame), from: k, to: k + 1 })));
  });

  test('of ten thousand there are no more than there is room for, each key in one', () => {
    const frames = Array.from({ length: 10000 }, (_, k) => 1 + 2 * k);
    const marks = marksOf(frames, scale);
    expect(marks.length).toBeLessThan((scale.right - scale.left) / 6);
    expect(marks[0].from).toBe(0);
    expect(marks.at(-1)!.to).toBe(10000);
    for (let k = 1; k < marks.length; k++) {
      expect(marks[k].from).toBe(marks[k - 1].to);
      expect(marks[k].x - marks[k - 1].x).toBeGreaterThanOrEqual(7);
    }
  });

  test('what is out of sight has none', () => {
    const near = scaleOf([1, 20000], 924, [100, 140]);
    const marks = marksOf(
      Array.from({ length: 20000 }, (_, k) => k + 1),
      near,
    );
    expect(marks.length).toBeLessThan(45);
    expect(marks.every(({ x }) => x >= near.left - 6 && x <= near.right + 6)).toBe(true);
  });
});

test('ruler figures keep their distance at every range', () => {
  for (const last of [3, 40, 144, 1000, 40000]) {
    const scale = scaleOf([1, last], 924);
    const at = ticks(scale).map((frame) => xOf(scale, frame));
    for (let i = 1; i < at.length; i++) expect(at[i] - at[i - 1]).toBeGreaterThan(40);
  }
});

describe('coming nearer', () => {
  const range = [1, 145] as const;

  test('the frame under the pointer stays where it is', () => {
    const span = zoomScale(range, null, 37, 0.5)!;
    expect(span[1] - span[0]).toBe(72);
    expect((37 - span[0]) / 72).toBeCloseTo((37 - 1) / 144, 12);
    const scale = scaleOf(range, 924, span);
    expect(exactFrame(scale, xOf(scale, 37))).toBeCloseTo(37, 12);
  });

  test('what is shown stays within the range, and all of it is no span at all', () => {
    const near = zoomScale(range, null, 1, 0.1)!;
    expect(panScale(range, near, -50)).toEqual([1, 1 + near[1] - near[0]]);
    expect(panScale(range, near, 500)![1]).toBe(145);
    expect(zoomScale(range, near, 20, 100)).toBeNull();
    expect(panScale(range, null, 10)).toBeNull();
    const nearest = zoomScale(range, near, 5, 1e-6)!;
    expect(nearest[1] - nearest[0]).toBe(4);
  });

  test('a pixel beyond what is shown is still a frame of the range', () => {
    const scale = scaleOf(range, 924, [40, 60]);
    expect(frameAt(scale, 0)).toBeGreaterThanOrEqual(1);
    expect(frameAt(scale, xOf(scale, 50))).toBe(50);
  });
});
