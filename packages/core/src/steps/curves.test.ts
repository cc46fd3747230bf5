import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { arcLengths, totalLength } from '../curves/arclength';
import { grownLength, visibleLength } from '../curves/pathFrames';
import { redrawPart } from '../curves/redraw';
import { tipsOf } from '../curves/tips';
import { flaws } from '../geometry/invariants';
import { areaAndVolume, topology } from '../geometry/mesh';
import { type Paths, pathCount, pointCount } from '../geometry/paths';
import { type Anchor, at, distance, dot, type Vec3 } from '../geometry/vec';
import { newGrowth, newStep } from '../scene/make';
import { type ParamValue, type Scene, type Step } from '../scene/schema';
import { formOf, sceneOf, shipForTests, testEvaluator } from '../testing';

const FONT = join(__dirname, '../../../../examples/assets/bricolage-grotesque-800.woff');
beforeAll(() => shipForTests(async () => new Uint8Array(readFileSync(FONT))));

const form = async (steps: Step[], frame = 1, change: (scene: Scene) => void = () => undefined) => {
  const scene = sceneOf(steps);
  change(scene);
  const made = await formOf(scene, frame);
  expect(flaws(made)).toEqual([]);
  return made;
};
const paths = async (steps: Step[], frame = 1, change?: (scene: Scene) => void): Promise<Paths> =>
  (await form(steps, frame, change)).paths!;
const line = (length: number, points = 11) => newStep('line', { fromY: 0, toY: length, points });
const circle = (points = 120, radius = 1) => newStep('arc', { radius, points });
const last = (of: Paths, path = 0): Vec3 => at(of.positions, of.offsets[path + 1] - 1);
const grows = (from: number, to: number): ParamValue => ({
  keys: [
    { frame: 1, value: from, ease: 'linear' },
    { frame: 101, value: to, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
});

describe('respacing', () => {
  const spaced = (length: number, rest: string) =>
    paths([line(length), newStep('respace', { by: 'spacing', spacing: 0.3, rest })]);

  test('a remainder is spread, kept as a shorter piece, or dropped', async () => {
    const lengths = async (rest: string) => {
      const made = await spaced(1, rest);
      return Array.from({ length: pointCount(made) - 1 }, (_, i) =>
        distance(at(made.positions, i), at(made.positions, i + 1)),
      );
    };
    (await lengths('fit')).forEach((piece) => expect(piece).toBeCloseTo(1 / 3, 5));
    const kept = await lengths('keep');
    expect(kept).toHaveLength(4);
    expect(kept[3]).toBeCloseTo(0.1, 5);
    const dropped = await lengths('drop');
    expect(dropped).toHaveLength(3);
    expect(dropped[2]).toBeCloseTo(0.3, 5);
  });

  test('whole pieces leave no remainder behind, in spite of rounding', async () => {
    for (const rest of ['keep', 'drop']) expect(pointCount(await spaced(0.9, rest))).toBe(4);
  });

  test('points per metre keep their places while the length is animated: only the end changes', async () => {
    const at7 = await paths([line(0.7), newStep('respace', { by: 'density', density: 20, rest: 'keep' })]);
    const at9 = await paths([line(0.93), newStep('respace', { by: 'density', density: 20, rest: 'keep' })]);
    for (let i = 0; i < 14; i++) expect(distance(at(at7.positions, i), at(at9.positions, i))).toBeLessThan(1e-5);
    expect(pointCount(at9)).toBe(20);
  });
});

describe('simplify', () => {
  test('keeps within its distance, with points where they were', async () => {
    const before = await paths([newStep('helix', { points: 400 })]);
    const after = await paths([newStep('helix', { points: 400 }), newStep('thin', { within: 0.01 })]);
    expect(pointCount(after)).toBeLessThan(200);
    let k = 0;
    for (let i = 0; i < pointCount(before) && k < pointCount(after); i++)
      if (distance(at(before.positions, i), at(after.positions, k)) === 0) k++;
    expect(k).toBe(pointCount(after));
    expect(after.u[pointCount(after) - 1]).toBe(1);
  });

  test('a circle stays a loop, however coarse', async () => {
    for (const within of [0.001, 0.1, 10]) {
      const made = await paths([circle(), newStep('thin', { within })]);
      expect(made.closed[0]).toBe(1);
      expect(pointCount(made)).toBeGreaterThanOrEqual(3);
    }
  });
});

describe('blend', () => {
  const withOther = (amount: ParamValue, other: Step) =>
    paths([line(2, 41), newStep('blend', { growth: 'other', amount })], 1, (scene) =>
      scene.growths.push({ ...newGrowth('Other', 1, [other]), id: 'other' }),
    );

  test('none is the own course, all is the other, half lies between, point by point', async () => {
    const other = newStep('line', { fromX: 1, fromY: 0, toX: 5, toY: 0, points: 9 });
    const [none, half, all] = await Promise.all([0, 0.5, 1].map((amount) => withOther(amount, other)));
    expect(last(none)).toEqual([0, 2, 0]);
    expect(distance(last(all), [5, 0, 0])).toBeLessThan(1e-5);
    expect(distance(at(half.positions, 20), [1.5, 0.5, 0])).toBeLessThan(1e-5);
  });

  test('along the path by a drawn shape: the base stays, the tip goes over', async () => {
    const shape = [
      { at: 0, value: 0, shape: 'straight' as const },
      { at: 1, value: 1 },
    ];
    const made = await withOther(
      { base: 0, vary: { by: 'along', amount: 1, waves: 0, shape } },
      newStep('line', { fromX: 1, fromY: 0, toX: 1, toY: 2 }),
    );
    expect(at(made.positions, 0)).toEqual([0, 0, 0]);
    expect(last(made)[0]).toBeCloseTo(1, 5);
  });
});

describe('parallel strands', () => {
  // A curve at distance d from a circle of radius R is a circle of radius R ± d.
  test('of a circle are circles, each as far from it as is said', async () => {
    const made = await paths([circle(360), newStep('strands', { as: 'parallel', count: 3, apart: 0.2, vary: 0 })]);
    const lengths = [0, 1, 2].map((path) => visibleLength(made, path) / (2 * Math.PI)).sort();
    // The frame of a circle may start in any direction: in its plane it makes rings, out of it a cylinder.
    const middle = lengths[1];
    expect(middle).toBeCloseTo(1, 2);
    for (let path = 1; path < 3; path++) {
      for (let i = 0; i < 360; i += 30) {
        const [a, b] = [at(made.positions, made.offsets[0] + i), at(made.positions, made.offsets[path] + i)];
        expect(distance(a, b)).toBeCloseTo(0.2, 4);
      }
    }
  });
});

describe('windows', () => {
  test('on a closed path the window goes over the seam and keeps its length everywhere', async () => {
    for (let travel = -1.3; travel < 2; travel += 0.0937) {
      const made = await paths([circle(), newStep('grow', { from: 0, to: 0.25, travel })]);
      expect(pathCount(made)).toBe(1);
      expect(made.closed[0]).toBe(0);
      expect(grownLength(made) / ((2 * Math.PI) / 4)).toBeCloseTo(1, 3);
      for (let i = 1; i < pointCount(made); i++)
        expect(distance(at(made.positions, i - 1), at(made.positions, i))).toBeLessThan(0.0525);
    }
  });

  test('a whole turn later it is where it was', async () => {
    const [a, b] = await Promise.all(
      [0.4, 1.4].map((travel) => paths([circle(), newStep('grow', { to: 0.3, travel })])),
    );
    expect(pointCount(a)).toBe(pointCount(b));
    a.positions.forEach((x, i) => expect(x).toBeCloseTo(b.positions[i], 5));
  });

  test('on an open path it slides in at one end and out at the other', async () => {
    const length = async (travel: number) => grownLength(await paths([line(1), newStep('grow', { to: 0.25, travel })]));
    expect(await length(-0.25)).toBe(0);
    expect(await length(-0.1)).toBeCloseTo(0.15, 5);
    expect(await length(0.5)).toBeCloseTo(0.25, 5);
    expect(await length(0.9)).toBeCloseTo(0.1, 5);
    expect(await length(1)).toBe(0);
  });

  test('no point of the visible part jumps while the window travels', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        async (travel, to) => {
          const ends = async (by: number) => {
            const made = await paths([circle(90), newStep('grow', { to, travel: travel + by })]);
            return [at(made.positions, 0), last(made)];
          };
          const [before, after] = [await ends(0), await ends(0.002)];
          // Both ends move by the window's own step on the polygon of 90 sides.
          [0, 1].forEach((end) => expect(distance(before[end], after[end])).toBeLessThan(0.002 * 2 * Math.PI * 1.01));
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('growth in order', () => {
  const row = (count: number) => newStep('strands', { as: 'row', count, apart: 1, vary: 0, turn: 0 });
  const there = (made: Paths) => Array.from({ length: pathCount(made) }, (_, path) => visibleLength(made, path));

  test('by distance from a guide: the nearest sets out first', async () => {
    const made = await paths(
      [line(1), row(5), newStep('grow', { to: grows(0, 1), stagger: 20, order: 'guide', guide: 'guide:g' })],
      51,
      (scene) =>
        scene.guides.push({
          id: 'g',
          name: 'Lamp',
          kind: 'point',
          position: [2, 0, 0],
          rotation: [0, 0, 0],
          size: [1, 1, 1],
        }),
    );
    // Strands stand at 0, 1, −1, 2, −2 metres: the fourth is nearest, then the second, first, third, fifth.
    const lengths = there(made);
    [0.1, 0.3, 0, 0.5, 0].forEach((length, i) => expect(lengths[i]).toBeCloseTo(length, 4));
  });

  test('the tips of another growth are a guide too, where they are at that frame', async () => {
    const scene = sceneOf([
      line(1),
      row(3),
      newStep('grow', { to: grows(0, 1), stagger: 40, order: 'guide', guide: 'tip:walker' }),
    ]);
    scene.growths.push({
      ...newGrowth('Walker', 1, [newStep('line', { fromX: -3, fromY: 0, toX: -1, toY: 0 })]),
      id: 'walker',
    });
    const lengths = there(await formOf(scene, 61));
    async function formOf(of: Scene, frame: number) {
      return (await testEvaluator().evaluate(of, frame)).growths[0].form!.paths!;
    }
    expect(lengths[2]).toBeGreaterThan(lengths[0]);
    expect(lengths[0]).toBeGreaterThan(lengths[1]);
  });

  test("easing works on each path's own share", async () => {
    const plain = await paths([line(1), newStep('grow', { to: 0.5, ease: 'quad-in' })]);
    expect(grownLength(plain)).toBeCloseTo(0.25, 5);
  });
});

describe('levels', () => {
  const row = newStep('strands', { as: 'row', count: 5, apart: 1, vary: 0, turn: 0 });
  const lengths = (made: Paths) => Array.from({ length: pathCount(made) }, (_, path) => visibleLength(made, path));

  test('drawn by hand from the first path to the last', async () => {
    const levelProfile = [
      { at: 0, value: 0, shape: 'straight' as const },
      { at: 1, value: 1 },
    ];
    const made = await paths([line(1), row, newStep('grow', { levels: 1, levelsBy: 'profile', levelProfile })]);
    lengths(made).forEach((length, i) => expect(length).toBeCloseTo(i / 4, 5));
    made.level!.forEach((level, i) => expect(level).toBeCloseTo(i / 4, 5));
  });

  test('by sound: they move with it, close over its length, and are the same however a frame is reached', async () => {
    const scene = sceneOf([line(1), row, newStep('grow', { levels: 1, levelsBy: 'sound' })]);
    const evaluator = testEvaluator();
    const level = async (frame: number) =>
      Array.from((await evaluator.evaluate(scene, frame)).growths[0].form!.paths!.level!);
    const at30 = await level(30);
    const other = await level(97);
    expect(at30).not.toEqual(other);
    expect(await level(30 + 144)).toEqual(at30);
    const jump = (await testEvaluator().evaluate(scene, 97)).growths[0].form!.paths!.level!;
    expect(Array.from(jump)).toEqual(other);
  });

  test('a sound of no use says so on its step', async () => {
    const scene = sceneOf([line(1), row, newStep('grow', { levels: 1, levelsBy: 'sound', sound: 'none' })]);
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices[0]).toMatchObject({ level: 'error', place: { step: 'step2' } });
    expect(growths[0].notices[0].what).toMatch(/not in this scene/);
  });
});

describe('age', () => {
  test('is the time since the front passed: exact for an even growth, seen or jumped to', async () => {
    const scene = sceneOf([
      line(1, 101),
      newStep('grow', { to: grows(0, 1) }),
      newStep('wire'),
      newStep('finish', { by: 'age', fade: 2 }),
    ]);
    const { form } = (await testEvaluator().evaluate(scene, 61)).growths[0];
    const made = form!.paths!;
    // At frame 61 the front is at 0.6; a point at u was passed 60 − 100 u frames ago.
    for (let i = 0; i < pointCount(made); i += 7) expect(made.age![i]).toBeCloseTo((60 - 100 * made.u[i]) / 24, 3);
    expect(made.age![pointCount(made) - 1]).toBeCloseTo(0, 5);
    expect(form!.mesh!.age).not.toBeNull();
  });

  test('costs nothing where nobody wants it', async () => {
    const made = await form([line(1), newStep('grow', { to: 0.5 }), newStep('wire'), newStep('finish')]);
    expect(made.paths!.age).toBeNull();
  });
});

describe('growing ends', () => {
  const tips = async (grow: Record<string, ParamValue>) => tipsOf(await paths([line(2), newStep('grow', grow)]));

  test('are the far one, the near one where a path is eaten, both in the middle of nowhere', async () => {
    const [far] = await tips({ to: 0.5 });
    expect([far.position[1], far.tangent[1]]).toEqual([1, 1]);
    const [near] = await tips({ from: 0.25 });
    expect([near.position[1], near.tangent[1]]).toEqual([0.5, -1]);
    expect(await tips({ from: 0.2, to: 0.8 })).toHaveLength(2);
    expect(await tips({ begins: 'middle', to: 0.5 })).toHaveLength(2);
    expect((await tips({ begins: 'tip', to: 0.5 }))[0].position[1]).toBeCloseTo(1, 5);
    expect(await tips({ to: 0 })).toHaveLength(0);
  });

  test('what rides stands on the tip at every moment, its axis along the path, with no gap', async () => {
    const scene = sceneOf([
      newStep('helix', { points: 300 }),
      newStep('grow', { to: grows(0.02, 1) }),
      newStep('tips', { growth: 'cap' }),
    ]);
    scene.growths.push({
      ...newGrowth('Cap', 1, [newStep('line', { fromY: 0, toY: 0.1, points: 2 }), newStep('wire', { radius: 0.01 })]),
      id: 'cap',
    });
    const evaluator = testEvaluator();
    for (const frame of [1, 17.3, 44, 80.9, 101]) {
      const { paths: made, mesh } = (await evaluator.evaluate(scene, frame)).growths[0].form!;
      const [tip] = tipsOf(made!);
      // The cap is a wire of three sides: its first ring lies about the tip, its second a tenth of a metre on.
      const ring = (first: number): Vec3 =>
        [0, 1, 2].map((c) =>
          [0, 1, 2].reduce((sum, k) => sum + mesh!.positions[3 * (first + k) + c] / 3, 0),
        ) as unknown as Vec3;
      expect(distance(ring(0), tip.position)).toBeLessThan(1e-5);
      const axis = ring(4).map((x, c) => (x - tip.position[c]) / 0.1) as unknown as Vec3;
      expect(dot(axis, tip.tangent)).toBeCloseTo(1, 4);
      expect(distance(last(made!), tip.position)).toBe(0);
    }
  });
});

describe('ribbon', () => {
  const tilted = newStep('line', { fromX: 0, fromY: 0, toX: 2, toY: 1, points: 30 });
  const plain = { along: [{ at: 0, value: 1 }], swell: 0, radius: 0.2, thick: 0.02 };

  test('flat ends: width times thickness times length; round ends add a disc', async () => {
    const flat = await form([tilted, newStep('ribbon', { ...plain, start: 'flat', end: 'flat' })]);
    expect(areaAndVolume(flat.mesh!).volume).toBeCloseTo(0.4 * 0.02 * Math.sqrt(5), 5);
    expect(topology(flat.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    const round = await form([tilted, newStep('ribbon', { ...plain, start: 'round', end: 'round' })]);
    const disc = areaAndVolume(round.mesh!).volume - areaAndVolume(flat.mesh!).volume;
    expect(disc / (Math.PI * 0.2 ** 2 * 0.02)).toBeCloseTo(1, 1);
    expect(topology(round.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0 });
  });

  test('level faces up, upright stands: by how high the band reaches', async () => {
    const flatLine = newStep('line', { fromX: 0, fromY: 1, toX: 2, toY: 1, points: 30 });
    const reach = async (lean: string) => {
      const { mesh } = await form([flatLine, newStep('ribbon', { ...plain, lean, start: 'flat', end: 'flat' })]);
      return Math.max(...mesh!.positions.filter((_, i) => i % 3 === 1)) - 1;
    };
    expect(await reach('level')).toBeCloseTo(0.01, 5);
    expect(await reach('upright')).toBeCloseTo(0.2, 5);
  });

  test('a path that goes over the top keeps sound frames, without a jump', async () => {
    const { paths: made, mesh } = await form([
      newStep('arc', { radius: 1, points: 200 }),
      newStep('ribbon', { ...plain, lean: 'upright' }),
    ]);
    expect(made).not.toBeNull();
    expect(topology(mesh!).openEdges).toBe(0);
  });
});

describe('sweeping', () => {
  const straight = newStep('line', { fromY: 0, toY: 2, points: 5 });
  const plain = { along: [{ at: 0, value: 1 }], swell: 0, radius: 0.5, start: 'flat', end: 'flat' };
  const swept = async (more: Record<string, ParamValue>, path = straight, change?: (scene: Scene) => void) =>
    (await form([path, newStep('sweep', { ...plain, ...more })], 1, change)).mesh!;

  // Areas in closed form, in units of the radius squared (Bronshtein and Semendyayev, plane figures).
  test.each([
    ['polygon', { corners: 6 }, 3 * Math.sin(Math.PI / 3)],
    ['star', { corners: 5, inner: 0.5 }, 5 * 0.5 * Math.sin(Math.PI / 5)],
    ['cross', { broad: 0.3 }, 4 * 0.6 - 4 * 0.09],
    ['band', { broad: 0.25 }, 4 * 0.25],
    ['arch', { broad: 0.5 }, (Math.PI / 2) * (1 - 0.25)],
    ['circle', {}, Math.PI],
    ['drawn', { outline: [{ at: 0, value: 0.8 }] }, Math.PI * 0.64],
  ])('a straight %s is a prism of its area', async (profile, more, area) => {
    for (const [start, end] of [
      ['flat', 'flat'],
      ['pointed', 'round'],
    ]) {
      const mesh = await swept({ profile, ...more, start, end });
      expect(topology(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
      if (end === 'flat') expect(areaAndVolume(mesh).volume / (area * 0.25 * 2)).toBeCloseTo(1, 2);
    }
  });

  test('rounded corners take off what a parabola takes: a square loses 1/6 of each corner square', async () => {
    // Sides of √2; a parabola fills two thirds of the triangle of its tangents (Archimedes), six chords 1 − 1/36 of that.
    const side = Math.SQRT2;
    const rounded = areaAndVolume(await swept({ profile: 'polygon', corners: 4, rounding: 1 })).volume / 0.5;
    expect(rounded).toBeCloseTo(side * side - 4 * ((side / 2) ** 2 / 2) * (1 - (2 / 3) * (1 - 1 / 36)), 3);
  });

  test('the closed path of another growth is swept, with the closed path inside it as a hole', async () => {
    const mesh = await swept({ profile: 'growth', growth: 'ring' }, straight, (scene) =>
      scene.growths.push({ ...newGrowth('Ring', 1, [circle(180, 2), circle(180, 1)]), id: 'ring' }),
    );
    expect(topology(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 0 });
    expect(areaAndVolume(mesh).volume / (Math.PI * (1 - 0.25) * 0.25 * 2)).toBeCloseTo(1, 2);
  });

  test('an SVG file is swept, its inner path a hole', async () => {
    const data = Buffer.from('<svg><path d="M0 0H40V40H0ZM10 10V30H30V10Z"/></svg>').toString('base64');
    const mesh = await swept({ profile: 'svg', drawing: 'd' }, straight, (scene) =>
      scene.assets.push({ id: 'd', name: 'Frame', kind: 'svg', data }),
    );
    expect(areaAndVolume(mesh).volume).toBeCloseTo((4 - 1) * 0.25 * 2, 5);
    expect(topology(mesh)).toMatchObject({ openEdges: 0, euler: 0 });
  });

  // Pappus: an area A whose centre runs round a circle of radius R sweeps 2πRA; set off by d across, 2π(R + d)A.
  test('round a circle it sweeps its area times the way of its centre, set off or not', async () => {
    const around = circle(256, 2);
    const volume = async (offsetX: number) =>
      areaAndVolume(await swept({ profile: 'polygon', corners: 4, offsetX, radius: 0.3 }, around)).volume;
    const area = 2 * 0.09;
    expect((await volume(0)) / (2 * Math.PI * 2 * area)).toBeCloseTo(1, 2);
    const moved = (await volume(1)) / (2 * Math.PI * area);
    // Which way the first normal points is the frame's business: outwards, inwards, or up.
    expect([1.7, 2, 2.3].some((way) => Math.abs(moved - way) < 0.01)).toBe(true);
  });

  test('where a path bends more tightly than the profile is wide, no face turns inside out', async () => {
    const tight = newStep('drawn', {
      anchors: [
        [-1, 0, 0],
        [0, 1, 0],
        [0.06, 1.05, 0],
        [0.12, 1, 0],
        [1, 0, 0],
      ],
      points: 200,
    });
    const { paths: made, mesh } = await form([
      tight,
      newStep('tube', { radius: 0.2, swell: 0, along: [{ at: 0, value: 1 }] }),
    ]);
    const { positions, indices, normals } = mesh!;
    let turned = 0;
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[i + k]));
      const u = b.map((x, k) => x - a[k]);
      const v = c.map((x, k) => x - a[k]);
      const face: Vec3 = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
      if (Math.hypot(...face) > 1e-9 && dot(face, at(normals, indices[i])) < 0) turned++;
    }
    expect(made!.closed[0]).toBe(0);
    expect(turned / (indices.length / 3)).toBeLessThan(0.01);
  });
});

describe('paths of outlines', () => {
  test('a text stands on the ground, as high as is said, its letters closed', async () => {
    const made = await paths([newStep('text', { text: 'HI', size: 2 })]);
    expect(Array.from(made.closed)).toEqual([1, 1]);
    const heights = made.positions.filter((_, i) => i % 3 === 1);
    expect(Math.min(...heights)).toBeCloseTo(0, 5);
    // The capitals' height is the font's own (OS/2 sCapHeight), in em.
    expect(Math.max(...heights) / 2).toBeGreaterThan(0.6);
    expect(Math.max(...heights) / 2).toBeLessThan(0.8);
  });

  test("an SVG file is scaled by its longer side, or by its unit; 'on the ground' lies flat", async () => {
    const data = Buffer.from('<svg><rect width="40" height="10"/></svg>').toString('base64');
    const made = (more: Record<string, ParamValue>) =>
      paths([newStep('vector', { drawing: 'd', ...more })], 1, (scene) =>
        scene.assets.push({ id: 'd', name: 'Bar', kind: 'svg', data }),
      );
    expect(visibleLength(await made({ by: 'size', size: 2 }), 0)).toBeCloseTo(5, 5);
    expect(visibleLength(await made({ by: 'unit', size: 0.001 }), 0)).toBeCloseTo(0.1, 6);
    const flat = await made({ lies: 'ground' });
    expect(flat.positions.filter((_, i) => i % 3 === 1).every((y) => y === 0)).toBe(true);
  });

  test('edges of a mesh: a square prism has twelve at right angles, none softer', async () => {
    const made = (angle: number, chain: boolean) =>
      paths([newStep('edges', { growth: 'box', angle, chain })], 1, (scene) =>
        scene.growths.push({
          ...newGrowth('Box', 1, [
            newStep('line', { fromY: 0, toY: 1, points: 2 }),
            newStep('sweep', {
              profile: 'polygon',
              corners: 4,
              radius: Math.SQRT1_2,
              swell: 0,
              along: [{ at: 0, value: 1 }],
              start: 'flat',
              end: 'flat',
            }),
          ]),
          id: 'box',
        }),
      );
    const edges = await made(80, false);
    expect(pathCount(edges)).toBe(12);
    expect(grownLength(edges)).toBeCloseTo(12, 4);
    expect(grownLength(await made(80, true))).toBeCloseTo(12, 4);
    await expect(made(95, false)).rejects.toThrow(/No edge/);
  });
});

describe('drawn paths', () => {
  const anchors: Anchor[] = [
    [0, 0, 0],
    [0, 1, 0, 2],
    [0, 2, 0, 2, 90],
    [0, 3, 0],
  ];

  test('anchors carry their size and lean, eased from one to the next', async () => {
    const made = await paths([newStep('drawn', { anchors, points: 301 })]);
    const near = (y: number) =>
      Array.from(made.positions.filter((_, i) => i % 3 === 1)).findIndex((v) => v >= y - 1e-4);
    expect(made.size[near(0)]).toBeCloseTo(1, 3);
    expect(made.size[near(1)]).toBeCloseTo(2, 2);
    expect(made.lean![near(2)]).toBeCloseTo(Math.PI / 2, 2);
    expect(made.lean![near(0.5)]).toBeCloseTo(0, 2);
    for (let i = 1; i < 301; i++) expect(Math.abs(made.size[i] - made.size[i - 1])).toBeLessThan(0.02);
  });

  test('a stroke takes the place of the part that it lies along, whichever way it was drawn', () => {
    const stroke: Anchor[] = [
      [0.1, 1, 0],
      [0.5, 1.5, 0],
      [0.1, 2, 0],
    ];
    const there = redrawPart(anchors, stroke);
    expect(there).toHaveLength(5);
    expect(there[0]).toEqual([0, 0, 0]);
    expect(there[2]).toEqual([0.5, 1.5, 0, 2]);
    expect(there[4]).toEqual([0, 3, 0]);
    expect(redrawPart(anchors, [...stroke].reverse())).toEqual(there);
  });

  test('a shell spiral keeps its angle: the radius falls by one factor each turn, height with it', async () => {
    const made = await paths([
      newStep('helix', { below: 1, above: 1 / 16, widens: 'by-factor', turns: 4, height: 15, points: 4000 }),
    ]);
    const radiusAt = (height: number) => {
      const i = Array.from({ length: 4000 }, (_, k) => k).find((k) => made.positions[3 * k + 1] >= height)!;
      return Math.hypot(made.positions[3 * i], made.positions[3 * i + 2]);
    };
    // On the cone r = 1 − y / 16, whatever the turn.
    for (const height of [0, 4, 8, 12]) expect(radiusAt(height)).toBeCloseTo(1 - height / 16, 2);
    const table = arcLengths(made.positions, 0, 4000, false);
    // A logarithmic spiral on a cone of slope m: length = √(1 + m² + (1/b)²) (r₀ − r₁) with r = e^(−bθ) (from memory).
    const b = Math.log(16) / (8 * Math.PI);
    expect(totalLength(table) / (Math.sqrt(1 + 16 ** 2 + 1 / b ** 2) * (15 / 16))).toBeCloseTo(1, 3);
  });
});
