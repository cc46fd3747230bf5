import { clashesOf, fitOf } from '../../checks/fit';
import type { Copies } from '../../geometry/form';
import { turnedBy } from '../../geometry/turns';
import { add, at, distance, dot, norm, scale, sub, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import type { Track } from '../../time/track';
import { sceneOf, testEvaluator } from '../../testing';
import { grows, item, placed, turnOf } from '../../../test/placing';

const WIRE = 0.05;
const PITCH = 0.2;
const BOW = (0.075 + WIRE) / 2;

/** The middle of a link's wire as a closed polyline, from where its copy stands: a way of its own, by many short pieces. */
function middleOf(copies: Copies, k: number): Vec3[] {
  const half = (PITCH + WIRE) / 2 - BOW;
  const turn = turnOf(copies, k);
  const size = copies.sizes[3 * k];
  const bows = [1, -1].flatMap((way) =>
    Array.from({ length: 91 }, (_, i): Vec3 => {
      const angle = (Math.PI * i) / 90;
      return [way * BOW * Math.cos(angle), way * (half + BOW * Math.sin(angle)), 0];
    }),
  );
  return bows.map((place) => add(at(copies.positions, k), turnedBy(turn, scale(place, size))));
}

/** Least distance of two pieces (Ericson, Real-Time Collision Detection, 2005, section 5.1.9). */
function pieces(p1: Vec3, q1: Vec3, p2: Vec3, q2: Vec3): number {
  const [d1, d2, r] = [sub(q1, p1), sub(q2, p2), sub(p1, p2)];
  const [a, e, f, c, b] = [dot(d1, d1), dot(d2, d2), dot(d2, r), dot(d1, r), dot(d1, d2)];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  const denominator = a * e - b * b;
  let s = denominator > 1e-18 ? clamp((b * f - c * e) / denominator) : 0;
  let t = (b * s + f) / e;
  if (t < 0 || t > 1) {
    t = clamp(t);
    s = clamp((b * t - c) / a);
  }
  const [x, y, z] = sub(add(p1, scale(d1, s)), add(p2, scale(d2, t)));
  return norm(x, y, z);
}

/** The room between the wires of two links, metres; below 0 they cut. */
function gapOf(copies: Copies, k: number, next = k + 1): number {
  const [one, two] = [middleOf(copies, k), middleOf(copies, next)];
  let least = Infinity;
  for (let i = 0; i < one.length; i++)
    for (let j = 0; j < two.length; j++) {
      const next = [one[(i + 1) % one.length], two[(j + 1) % two.length]] as const;
      // What is further off than both are long is no nearer than what was found.
      const apart = distance(one[i], two[j]) - distance(one[i], next[0]) - distance(two[j], next[1]);
      if (apart < least) least = Math.min(least, pieces(one[i], next[0], two[j], next[1]));
    }
  return least - WIRE * copies.sizes[3 * k];
}

/** Gaps of links to the next along their path, some of them, and on a ring that of the last to the first. */
function gapsOf(copies: Copies, ring = false): number[] {
  const order = Array.from(copies.ids.keys()).sort((a, b) => copies.ids[a] - copies.ids[b]);
  const pairs = order.slice(1).map((k, i): [number, number] => [order[i], k]);
  if (ring) pairs.push([order.at(-1)!, order[0]]);
  // Both kinds of neighbours all along, and the last.
  const each = 2 * Math.floor(pairs.length / 10) + 1;
  return pairs.filter((_, i) => i % each === 0 || i === pairs.length - 1).map(([a, b]) => gapOf(copies, a, b));
}

/** No link cuts the next, and none hangs looser than a five-hundredth of the wire. */
function expectTaut(gaps: number[]): void {
  expect(gaps.length).toBeGreaterThan(3);
  expect(Math.min(...gaps) / WIRE).toBeGreaterThan(0);
  expect(Math.max(...gaps) / WIRE).toBeLessThan(0.002);
}

const arc = (links: number): Step => newStep('arc', { radius: links * PITCH, sweep: 200, points: 900 });

describe('links that hang in each other', () => {
  test.each([
    ['a line', newStep('line', { fromY: 0, toY: 2, points: 20 })],
    ['a bend of 12 links', arc(12)],
    ['a bend of 5 links', arc(5)],
    ['a bend of 3 links', arc(3)],
    ['a bend of 1.9 links', arc(1.9)],
    [
      'winds of 1.2 links',
      newStep('helix', { below: 1.2 * PITCH, above: 1.2 * PITCH, height: 1, turns: 2, points: 1800 }),
    ],
    ['a helix', newStep('helix', { below: 0.9, above: 0.7, height: 1.5, turns: 1.5, points: 900 })],
    ['a hanging line', newStep('catenary', {})],
  ])('touch along %s: never a cut, no more than a five-hundredth of the wire apart', async (_, path) => {
    const { copies } = await placed([path], { turns: '0, 90', laid: 'now' });
    const last = Math.min(copies!.ids.length - 1, 7);
    expect(last).toBeGreaterThan(3);
    for (let k = 0; k < last; k++) {
      const gap = gapOf(copies!, k);
      expect(gap / WIRE).toBeGreaterThan(0);
      expect(gap / WIRE).toBeLessThan(0.002);
    }
  });

  test('touch on a path that noise moves, at every moment', async () => {
    for (const frame of [1, 40, 90]) {
      const { copies } = await placed(
        [newStep('line', { fromY: 0, toY: 2, points: 300 }), newStep('noise', { amount: 0.08, size: 1.5 })],
        { turns: '0, 90', laid: 'now' },
        undefined,
        frame,
      );
      for (let k = 0; k < Math.min(copies!.ids.length - 1, 6); k++) {
        const gap = gapOf(copies!, k);
        expect(gap / WIRE).toBeGreaterThan(0);
        expect(gap / WIRE).toBeLessThan(0.002);
      }
    }
  });

  // Wires of meshes with 24 sides lie within their thickness by a hundredth of it at most.
  const apart = async (steps: Step[], params: Record<string, ParamValue>, others: Step[][] = []): Promise<void> => {
    const scene = sceneOf([
      ...steps,
      newStep('along', { growth: 'item', settle: 0, turns: '0, 90', laid: 'now', ...params }),
    ]);
    const own = newStep('solid', { which: 'link', wire: 0.05, innerLength: 0.2, innerWidth: 0.075, sides: 24 });
    scene.growths.push(item([own]));
    others.forEach((more, i) => scene.growths.push({ ...item(more), id: `item ${i}` }));
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices).toEqual([]);
    const copies = growths[0].form!.copies!;
    const fit = await fitOf(copies);
    expect(fit.length).toBeGreaterThan(5);
    expect(Math.min(...fit.map(({ gap }) => gap))).toBeGreaterThan(0);
    expect(Math.max(...fit.map(({ gap }) => gap))).toBeLessThan(0.012 * WIRE);
    const { pairs } = await clashesOf(copies);
    expect(pairs).toEqual([]);
  };
  const tight = (): Step => newStep('helix', { below: 0.4, above: 0.4, height: 1, turns: 1, points: 900 });

  test('touch where their size goes down along a bend, and none cuts another', () =>
    apart([tight()], {
      profile: [
        { at: 0, value: 1 },
        { at: 1, value: 0.5 },
      ],
    }));

  test('touch where links of two sizes take turns, in a pattern and by odds', async () => {
    const small = [newStep('solid', { which: 'link', wire: 0.04, innerLength: 0.14, innerWidth: 0.075, sides: 24 })];
    for (const mix of ['pattern', 'odds']) await apart([tight()], { second: 'item 0', mix, pattern: '1 2 2' }, [small]);
  });

  test('touch along a stroke of a hand with sharp turns', () => {
    const anchors = [0, 1, 2, 3, 4, 5].map((i) => [0.45 * i, 0.3 * (i % 2), 0.1 * Math.sin(2 * i)] as const);
    return apart([newStep('drawn', { anchors, points: 600 })], {});
  });

  test('rings hang in each other where they are told to, turned across in turn, their centres on the path', async () => {
    const ring = newStep('solid', { which: 'ring', radius: 0.12, thick: 0.02 });
    const along = { growth: 'item', settle: 0, forward: 'y', laid: 'now' };
    const scene = sceneOf([newStep('line', { fromY: 0, toY: 2 }), newStep('along', { ...along, hang: true })]);
    scene.growths.push(item([ring, newStep('transform', { turnX: 90, moveX: 0.3, moveZ: -0.2 })]));
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices).toEqual([]);
    const copies = growths[0].form!.copies!;
    const gaps = (await fitOf(copies)).map(({ gap }) => gap);
    expect(Math.min(...gaps)).toBeGreaterThan(0);
    // Tori of a mesh: their wires lie within their thickness.
    expect(Math.max(...gaps)).toBeLessThan(0.004);
    expect((await clashesOf(copies)).pairs).toEqual([]);
    // Its centre is on the path, wherever its origin is.
    const box = (axis: number): number[] => {
      const places = Array.from({ length: copies.ids.length }, (_, k) =>
        add(at(copies.positions, k), turnedBy(turnOf(copies, k), [0.3, 0, -0.2])),
      );
      return places.map((place) => Math.abs(place[axis]));
    };
    expect(Math.max(...box(0), ...box(2))).toBeLessThan(0.002);
  });

  test('rolled by keys they stay hung at every angle, and a copy that hangs in nothing turns by just so much', async () => {
    for (const roll of [0, 37, 200]) {
      const { copies } = await placed([arc(5)], { turns: '0, 90', roll });
      expectTaut(gapsOf(copies!).slice(0, 6));
    }
    const turned = async (roll: ParamValue, frame: number) =>
      (await placed([newStep('line')], { by: 'count', count: 3, roll }, undefined, frame)).copies!;
    const [still, rolled] = [
      await turned(0, 1),
      await turned({ ...(grows as Track), keys: [{ frame: 1, value: 90, ease: 'linear' }] }, 1),
    ];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [turnOf(still, k), turnOf(rolled, k)];
      // Unit quaternions a quarter turn apart: the cosine of half of it.
      expect(Math.abs(a.reduce((sum, x, c) => sum + x * b[c], 0))).toBeCloseTo(Math.SQRT1_2, 5);
    }
  });

  test('an item without a hole hangs in nothing, and that is told', async () => {
    const scene = sceneOf([newStep('line', {}), newStep('along', { growth: 'item', settle: 0, hang: true })]);
    scene.growths.push(item([newStep('solid', { which: 'box' })]));
    const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
    expect(notices.map(({ what }) => what)).toEqual([expect.stringContaining('no hole through its middle')]);
  });

  test('a gap that is asked for is left between them', async () => {
    const { copies } = await placed([newStep('line', { fromY: 0, toY: 2, points: 20 })], {
      ...{ turns: '0, 90', laid: 'now', gap: -0.01 },
    });
    expect(gapOf(copies!, 1)).toBeCloseTo(0.01, 3);
  });
});

describe('links that are fed, pulled, or in a ring', () => {
  const winding = (): Step => newStep('helix', { below: 0.9, above: 0.65, height: 1.2, turns: 0.7, points: 600 });
  const turns = { turns: '0, 90' };
  const noisy = (): Step => newStep('noise', { amount: 0.08, size: 1.5 });

  test.each([
    ['fed', 30],
    ['fed', 63.5],
    ['fed on a path that moves', 50],
    ['pulled in at the base', 40],
    ['pulled in at the far end', 40],
    ['endless', 31],
  ])('touch while they are %s, at frame %d', async (how, frame) => {
    const steps = [winding(), ...(how.endsWith('moves') ? [noisy()] : [])];
    if (how.startsWith('fed')) steps.push(newStep('grow', { from: 0, to: grows }));
    const reveal = how.startsWith('fed') ? 'feed' : how === 'endless' ? 'endless' : 'pull';
    const { copies } = await placed(
      steps,
      { ...turns, reveal, fed: 0.6, fade: 0, enters: how.endsWith('far end') ? 'end' : 'base' },
      undefined,
      frame,
    );
    // Whatever their numbers, they come in the order of their places.
    const count = copies!.ids.length;
    const each = 2 * Math.floor(count / 14) + 1;
    const gaps: number[] = [];
    for (let k = 1; k < count; k += each) gaps.push(gapOf(copies!, k - 1, k));
    expectTaut(gaps);
  });

  test.each([4, 7, 12, 18])('as meshes of %d sides never cut each other, fed on a path that moves', async (sides) => {
    const coarse = newStep('solid', { which: 'link', wire: 0.05, innerLength: 0.2, innerWidth: 0.075, sides });
    const path = [winding(), noisy(), newStep('grow', { from: 0, to: grows })];
    const { copies } = await placed(path, { ...turns, reveal: 'feed' }, [coarse], 77);
    expect(copies!.ids.length).toBeGreaterThan(12);
    expect((await clashesOf(copies!)).pairs).toEqual([]);
  });

  test('come fed to where they hang when all is there, none faster than the front', async () => {
    const at100 = async (frame: number, reveal: string) =>
      (await placed([winding(), newStep('grow', { from: 0, to: grows })], { ...turns, reveal }, undefined, frame))
        .copies!;
    const [fed, hung] = [await at100(101, 'feed'), await at100(101, 'appear')];
    expect(fed.ids).toEqual(hung.ids);
    fed.positions.forEach((x, i) => expect(x).toBeCloseTo(hung.positions[i], 5));
    const [one, two] = [await at100(60, 'feed'), await at100(61, 'feed')];
    const front = (fed.ids.length + 1) * PITCH * 0.01;
    one.ids.forEach((id, k) => {
      const moved = norm(...sub(at(one.positions, k), at(two.positions, two.ids.indexOf(id))));
      expect(moved / front).toBeLessThan(1.1);
      expect(moved / front).toBeGreaterThan(0.9);
    });
  });

  test.each([
    ['a ring', 1.02],
    ['a ring that holds a hair less than its links', 0.64],
  ])('never cut in %s: as many as it takes, evenly loose', async (_, radius) => {
    for (const rest of ['leave', 'spread']) {
      const { copies } = await placed([newStep('arc', { radius, sweep: 360, points: 400 })], { ...turns, rest });
      const gaps = gapsOf(copies!, true);
      const count = copies!.ids.length;
      expect(count % 2).toBe(0);
      expect(Math.min(...gaps)).toBeGreaterThan(0);
      // Two more than it must be at most, their lengths shared by all.
      expect(Math.max(...gaps)).toBeLessThan((2.2 * PITCH) / count);
      expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThan(0.002);
    }
  });

  test('close a ring exactly where their size is fitted, round or not', async () => {
    for (const path of [
      newStep('arc', { radius: 1.02, sweep: 360, points: 400 }),
      newStep('drawn', {
        // Nearly an ellipse, out of the plane: bent by 5 to 10 links.
        anchors: Array.from({ length: 12 }, (_, k): Vec3 => {
          const angle = (2 * Math.PI * k) / 12;
          return [1.6 * Math.cos(angle), 1.3 * Math.sin(angle), 0.1 * Math.sin(2 * angle)];
        }),
        ...{ closed: true, points: 500 },
      }),
    ]) {
      const { copies } = await placed([path], { ...turns, rest: 'fit', laid: 'now' });
      expectTaut(gapsOf(copies!, true));
    }
  });

  test('spread along an open path reach from end to end and are never cut', async () => {
    for (const toY of [2.05, 2.19]) {
      const { copies } = await placed([newStep('line', { fromY: 0, toY, points: 20 })], { ...turns, rest: 'spread' });
      const gaps = gapsOf(copies!);
      expect(Math.min(...gaps)).toBeGreaterThan(0);
      const last = copies!.ids.length - 1;
      expect(last).toBe(10);
      expect(at(copies!.positions, last)[1] + at(copies!.positions, 0)[1]).toBeCloseTo(toY, 5);
    }
  });

  test('fitted along an open bend touch and reach from end to end', async () => {
    const { copies } = await placed([arc(5)], { ...turns, rest: 'fit' });
    expectTaut(gapsOf(copies!));
  });

  test('keep their number while noise moves their path, and hang by contact without being asked to', async () => {
    const counts = new Set<number>();
    for (const frame of [1, 30, 77]) {
      const { copies } = await placed([winding(), noisy()], turns, undefined, frame);
      counts.add(copies!.ids.length);
      expectTaut(gapsOf(copies!));
    }
    expect(counts.size).toBe(1);
  });

  test('fed round a ring they come to where they hang loose when all is there, without a step', async () => {
    const ring = [newStep('arc', { radius: 1.02, sweep: 360, points: 400 }), newStep('grow', { from: 0, to: grows })];
    const at100 = async (frame: number, reveal: string) =>
      (await placed(ring, { ...turns, reveal }, undefined, frame)).copies!;
    const [fed, hung, before] = [await at100(101, 'feed'), await at100(101, 'appear'), await at100(100.9, 'feed')];
    expect(fed.ids).toEqual(hung.ids);
    fed.positions.forEach((x, i) => expect(x).toBeCloseTo(hung.positions[i], 5));
    before.ids.forEach((id, k) =>
      expect(distance(at(before.positions, k), at(fed.positions, fed.ids.indexOf(id)))).toBeLessThan(0.01),
    );
  });

  test.each(['an open path', 'a ring'])('endless on %s, they go evenly past every birth', async (on) => {
    const path = on === 'a ring' ? newStep('arc', { radius: 1.02, sweep: 360, points: 400 }) : winding();
    const at100 = async (frame: number) =>
      (await placed([path], { ...turns, reveal: 'endless', births: 6, fade: 0 }, undefined, frame)).copies!;
    // A birth every 24 frames: at 25, 49, 73.
    for (const frame of [24, 48, 60]) {
      const [one, two] = [await at100(frame), await at100(frame + 2)];
      const moved = Array.from(one.ids).flatMap((id, k) => {
        const next = two.ids.indexOf(id);
        return next < 0 ? [] : [distance(at(one.positions, k), at(two.positions, next))];
      });
      expect(moved.length).toBeGreaterThan(8);
      for (const way of moved) expect(way / (PITCH / 12)).toBeCloseTo(1, 0.7);
    }
  });
});
