import fc from 'fast-check';
import { arcLengths } from '../../curves/arclength';
import type { Copies, Form } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import type { Paths } from '../../geometry/paths';
import { at, distance, dot, unit, sub, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { turnOf, item, link, placed, line, grows } from '../../../test/placing';

describe('growing with copies', () => {
  const at2 = (frame: number, params: Record<string, ParamValue>) =>
    placed([line(3), newStep('grow', { to: grows })], { turns: '0, 90', ...params }, [link()], frame);

  test('uncovered places never move, and each link keeps its own turn', async () => {
    const late = (await at2(101, {})).copies!;
    for (const frame of [20, 47.5, 80]) {
      const early = (await at2(frame, {})).copies!;
      expect(early.ids.length).toBeGreaterThan(0);
      early.ids.forEach((id, k) => {
        const l = late.ids.indexOf(id);
        expect(distance(at(early.positions, k), at(late.positions, l))).toBeLessThan(1e-4);
        expect(Math.abs(turnOf(early, k).reduce((sum, x, c) => sum + x * turnOf(late, l)[c], 0))).toBeCloseTo(1, 4);
      });
    }
  });

  test('fed through, no link jumps or flips: between frames it moves with the front, on the same turn', async () => {
    let before: Copies | null = null;
    for (let frame = 4; frame <= 101; frame += 1) {
      const now = (await at2(frame, { reveal: 'feed' })).copies!;
      for (let k = 0; before && k < before.ids.length; k++) {
        const n = now.ids.indexOf(before.ids[k]);
        expect(n).toBeGreaterThanOrEqual(0);
        // The front moves 3 m in 100 frames.
        expect(distance(at(before.positions, k), at(now.positions, n))).toBeLessThan(0.0301);
        expect(Math.abs(turnOf(before, k).reduce((sum, x, c) => sum + x * turnOf(now, n)[c], 0))).toBeCloseTo(1, 4);
      }
      before = now;
    }
    expect(before!.ids).toHaveLength(15);
  });

  test('fed through, what eats the path from its base pushes the train out of the far end, as pulling it in does at that end', async () => {
    const eaten = (frame: number) =>
      placed(
        [line(3), newStep('grow', { from: grows, to: 1 })],
        { reveal: 'feed', by: 'count', count: 16 },
        [link()],
        frame,
      );
    const pulled = (fed: number) =>
      placed([line(3)], { reveal: 'pull', enters: 'end', fed, by: 'count', count: 16 }, [link()], 1);
    for (const frame of [26, 51, 88]) {
      const [out, in_] = [(await eaten(frame)).copies!, (await pulled(1 - (frame - 1) / 100)).copies!];
      expect(out.ids.length).toBeGreaterThan(0);
      expect([...out.ids]).toEqual([...in_.ids]);
      out.positions.forEach((x, i) => expect(x).toBeCloseTo(in_.positions[i], 4));
    }
    // A window that travels is filled at every moment: as many copies as it is long.
    const [window] = [
      await placed(
        [line(3), newStep('grow', { from: 0.3, to: 0.7 })],
        { reveal: 'feed', by: 'count', count: 31 },
        [link()],
        1,
      ),
    ];
    expect(window.copies!.ids.length).toBeGreaterThanOrEqual(12);
  });

  test('a copy comes up to its size in the time that is said', async () => {
    const scene = sceneOf([
      line(3),
      newStep('grow', { to: grows }),
      newStep('along', { growth: 'item', settle: 1, ease: 'linear', by: 'count', count: 3 }),
    ]);
    scene.growths.push(item([link()]));
    const sizes = async (frame: number) =>
      Array.from((await testEvaluator().evaluate(scene, frame)).growths[0].form!.copies?.sizes ?? []).filter(
        (_, i) => i % 3 === 0,
      );
    // The middle one stands at half the length, passed at frame 51; 24 frames are a second.
    expect((await sizes(63))[1]).toBeCloseTo(0.5, 2);
    expect((await sizes(75))[1]).toBeCloseTo(1, 2);
    expect((await sizes(51.2))[1]).toBeLessThan(0.02);
  });

  test('adding a copy at the end changes no other', async () => {
    const few = (await placed([line(2)], { by: 'distance', distance: 0.2, rest: 'leave', vary: 0.5, varyTurn: 40 }))
      .copies!;
    const more = (await placed([line(2.2)], { by: 'distance', distance: 0.2, rest: 'leave', vary: 0.5, varyTurn: 40 }))
      .copies!;
    expect(more.ids.length).toBe(few.ids.length + 1);
    few.ids.forEach((id, k) => {
      expect(more.ids[k]).toBe(id);
      expect(more.sizes[3 * k]).toBeCloseTo(few.sizes[3 * k], 5);
      expect(distance(at(few.positions, k), at(more.positions, k))).toBeLessThan(1e-4);
    });
  });
});

describe('endless trains', () => {
  const endless = async (params: Record<string, ParamValue>, frame: number): Promise<Copies> => {
    const scene = sceneOf([line(3), newStep('along', { growth: 'item', reveal: 'endless', settle: 0, ...params })]);
    scene.range = [1, 48];
    scene.growths.push(item([link()]));
    const { growths } = await testEvaluator().evaluate(scene, frame);
    expect(flaws(growths[0].form!)).toEqual([]);
    return growths[0].form!.copies!;
  };

  test.each([
    ['a list of turns', { turns: '0, 90', births: 4 }],
    ['an angle more each time', { turns: '+137.508', births: 5 }],
    ['chance', { vary: 0.5, varyTurn: 30, births: 7 }],
    ['backwards', { turns: '0 90', births: -6 }],
  ])('close with the range, with %s', async (_, params) => {
    const [first, past] = [await endless(params, 1), await endless(params, 49)];
    expect(past.ids.length).toBe(first.ids.length);
    for (const key of ['positions', 'sizes'] as const)
      first[key].forEach((x, i) => expect(past[key][i]).toBeCloseTo(x, 5));
    first.ids.forEach((_id, k) =>
      expect(Math.abs(turnOf(first, k).reduce((sum, x, c) => sum + x * turnOf(past, k)[c], 0))).toBeCloseTo(1, 5),
    );
  });

  test('on an open path each comes up from nothing and goes to nothing: none appears or vanishes with a size', async () => {
    let before: Copies | null = null;
    for (let frame = 1; frame < 48; frame++) {
      const now = await endless({ births: 12 }, frame);
      const sizeOf = (of: Copies, id: number): number => (of.ids.includes(id) ? of.sizes[3 * of.ids.indexOf(id)] : 0);
      for (const id of new Set([...(before?.ids ?? []), ...now.ids]))
        if (before) expect(Math.abs(sizeOf(now, id) - sizeOf(before, id))).toBeLessThan(0.22);
      before = now;
    }
    expect(Math.max(...before!.sizes)).toBe(1);
  });

  test('each goes at an even pace with a turn of its own', async () => {
    let before = await endless({ turns: '0, 90', births: 4 }, 1);
    for (let frame = 2; frame < 48; frame++) {
      const now = await endless({ turns: '0, 90', births: 4 }, frame);
      before.ids.forEach((id, k) => {
        const n = now.ids.indexOf(id);
        if (n < 0) return;
        expect(distance(at(before.positions, k), at(now.positions, n))).toBeCloseTo((4 * 0.2) / 48, 5);
        expect(Math.abs(turnOf(before, k).reduce((sum, x, c) => sum + x * turnOf(now, n)[c], 0))).toBeCloseTo(1, 4);
      });
      before = now;
    }
  });
});

describe('pulled in', () => {
  const pulled = (fed: number, enters: string) => placed([line(3)], { reveal: 'pull', fed, enters, turns: '0, 90' });

  test('from both ends the halves meet where they belong', async () => {
    const whole = (await placed([line(3)], { turns: '0, 90' })).copies!;
    const met = (await pulled(1, 'both')).copies!;
    expect(met.positions).toEqual(whole.positions);
    const half = (await pulled(0.5, 'both')).copies!;
    const xs = Array.from(half.ids, (_, k) => half.positions[3 * k]);
    // Three quarters of a metre are still out at each side, and the middle is free.
    expect(xs.some((x) => x < 0.7)).toBe(true);
    expect(xs.some((x) => x > 2.3)).toBe(true);
    expect(xs.every((x) => x < 0.76 || x > 2.24)).toBe(true);
    half.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(Math.abs(half.positions[3 * k] - whole.positions[3 * w])).toBeCloseTo(0.75, 4);
    });
  });

  test('from one end, in the order of the train', async () => {
    const some = (await pulled(0.4, 'end')).copies!;
    expect(Math.min(...Array.from(some.ids, (_, k) => some.positions[3 * k]))).toBeGreaterThan(1.8 - 1e-4);
    expect((await pulled(0, 'base')).copies!.ids.length).toBe(0);
  });
});

describe('the path under the copies', () => {
  test('eaten from its start and growing at its end, it shows the places between, each where it was', async () => {
    const whole = (await placed([line(3)], { turns: '0, 90' })).copies!;
    const part = (await placed([line(3), newStep('grow', { from: 0.31, to: 0.77 })], { turns: '0, 90' })).copies!;
    const inside = Array.from(whole.ids).filter(
      (_, k) => whole.positions[3 * k] > 0.93 && whole.positions[3 * k] < 2.31,
    );
    expect(Array.from(part.ids)).toEqual(inside);
    part.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(distance(at(part.positions, k), at(whole.positions, w))).toBeLessThan(1e-4);
      expect(Math.abs(turnOf(part, k).reduce((sum, x, c) => sum + x * turnOf(whole, w)[c], 0))).toBeCloseTo(1, 4);
    });
  });

  test('left to itself it is exact on a path that keeps its course while it grows, and at rest on one that moves', async () => {
    const arc = newStep('arc', { radius: 0.8, sweep: 200, points: 120 });
    const grow = newStep('grow', { to: grows });
    const same = async (path: Step[], laid: string, frame: number): Promise<void> => {
      const cube = [newStep('solid', { which: 'box', width: 0.2, height: 0.05, depth: 0.05 })];
      const [own, said] = [await placed(path, {}, cube, frame), await placed(path, { laid }, cube, frame)];
      expect(own.copies!.positions).toEqual(said.copies!.positions);
    };
    await same([arc, grow], 'now', 60);
    await same([arc, newStep('noise', { amount: 0.1, evolve: 1 }), grow], 'rest', 60);
    await same([{ ...arc, params: { ...arc.params, radius: { formula: '0.8 + frame / 1000' } } }], 'rest', 60);
    const [now, rest] = [await placed([arc], { laid: 'now' }), await placed([arc], { laid: 'rest' })];
    expect(now.copies!.positions).not.toEqual(rest.copies!.positions);
  });

  test('laid round bends by straight distances, places stay where they are as the path grows and is eaten', async () => {
    const bend = newStep('arc', { radius: 0.8, sweep: 200, points: 120 });
    const exact = { turns: '0, 90', laid: 'now', rest: 'leave' };
    const whole = (await placed([bend], exact)).copies!;
    for (let k = 1; k < whole.ids.length; k++)
      expect(distance(at(whole.positions, k - 1), at(whole.positions, k))).toBeLessThan(0.2);
    const cube = newStep('solid', { which: 'box', width: 0.2, height: 0.05, depth: 0.05 });
    const blocks = (await placed([bend], { ...exact, turns: '0' }, [cube])).copies!;
    for (let k = 1; k < blocks.ids.length; k++)
      expect(distance(at(blocks.positions, k - 1), at(blocks.positions, k))).toBeCloseTo(0.2, 5);
    const part = (await placed([bend, newStep('grow', { from: 0.27, to: 0.8 })], exact)).copies!;
    expect(part.ids.length).toBeGreaterThan(4);
    part.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(distance(at(part.positions, k), at(whole.positions, w))).toBeLessThan(1e-3);
    });
  });

  test('blended into another shape it carries them along: none is added, dropped, or jumps', async () => {
    const amount: ParamValue = {
      keys: [
        { frame: 1, value: 0, ease: 'linear' },
        { frame: 51, value: 1, ease: 'linear' },
      ],
      before: 'hold',
      after: 'hold',
    };
    const scene = sceneOf([
      line(3),
      newStep('blend', { growth: 'goal', amount }),
      newStep('along', { growth: 'item', settle: 0, turns: '0, 90' }),
    ]);
    scene.growths.push(
      {
        ...newGrowth('Goal', 2, [newStep('arc', { radius: 1, sweep: 200, points: 60 })]),
        id: 'goal',
        visible: false,
      },
      item([link()]),
    );
    const blended = async (frame: number): Promise<Copies> => {
      const { growths } = await testEvaluator().evaluate(scene, frame);
      expect(growths[0].notices).toEqual([]);
      return growths[0].form!.copies!;
    };
    let before = await blended(1);
    for (let frame = 2; frame <= 51; frame++) {
      const now = await blended(frame);
      expect(now.ids).toEqual(before.ids);
      // The path's end goes by 0.08 m a frame; links that hang go on where the path becomes longer than they are.
      now.ids.forEach((_, k) => expect(distance(at(now.positions, k), at(before.positions, k))).toBeLessThan(0.16));
      before = now;
    }
  });
});

/** The most, in radians, that a path turns within any stretch of so many metres, a segment more at both ends. */
function mostTurning({ positions, offsets }: Paths, stretch: number): number {
  const arcs = arcLengths(positions, offsets[0], offsets[1], false);
  const direction = (k: number): Vec3 => unit(sub(at(positions, k + 1), at(positions, k)));
  const turned = [0, 0];
  for (let k = 1; k < arcs.length - 1; k++)
    turned.push(turned[k] + Math.acos(Math.min(1, dot(direction(k - 1), direction(k)))));
  let most = 0;
  for (let from = 0, to = 0; to < arcs.length; to++) {
    while (arcs[to] - arcs[from] > stretch) from++;
    const [first, last] = [Math.max(0, from - 1), Math.min(arcs.length - 1, to + 2)];
    most = Math.max(most, turned[last] - turned[first]);
  }
  return most;
}

test('over random paths and growing windows no copy jumps or flips', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.record({
        turns: fc.double({ min: 0.3, max: 3, noNaN: true }),
        height: fc.double({ min: 0.2, max: 2, noNaN: true }),
        push: fc.double({ min: 0, max: 0.3, noNaN: true }),
        laid: fc.constantFrom('rest', 'now'),
        reveal: fc.constantFrom('appear', 'feed'),
        from: fc.double({ min: 0, max: 0.4, noNaN: true }),
        to: fc.double({ min: 0.5, max: 0.95, noNaN: true }),
      }),
      async ({ turns, height, push, laid, reveal, from, to }) => {
        const ramp = (a: number, b: number): ParamValue => ({
          keys: [
            { frame: 1, value: a, ease: 'linear' },
            { frame: 41, value: b, ease: 'linear' },
          ],
          before: 'hold',
          after: 'hold',
        });
        const at = (frame: number): Promise<Form> =>
          placed(
            [
              newStep('helix', { turns, height, points: 300 }),
              newStep('noise', { amount: push, size: 1, evolve: 0 }),
              newStep('grow', { from: ramp(0, from), to: ramp(0.05, to) }),
            ],
            { turns: '0, 90', laid, reveal, rest: 'leave' },
            [link()],
            frame,
          );
        const { paths } = await placed(
          [newStep('helix', { turns, height, points: 300 }), newStep('noise', { amount: push, size: 1, evolve: 0 })],
          {},
        );
        // The front and what eats the path go at even paces; a copy goes no faster than both. Links that hang in each other
        // slip a little round bends that are as tight as noise makes them here.
        const slip = laid === 'now' ? 1.5 : 1;
        const most = (slip * (paths!.whole[0] * (to - 0.05 + from))) / 40 + 1e-3;
        const bend = mostTurning(paths!, most);
        let before: Copies | null = null;
        for (let frame = 2; frame <= 41; frame += 3) {
          const [a, b] = [(await at(frame)).copies!, (await at(frame + 1)).copies!];
          for (let k = 0; k < a.ids.length; k++) {
            const n = b.ids.indexOf(a.ids[k]);
            if (n < 0) continue;
            expect(
              distance(
                [a.positions[3 * k], a.positions[3 * k + 1], a.positions[3 * k + 2]],
                [b.positions[3 * n], b.positions[3 * n + 1], b.positions[3 * n + 2]],
              ),
            ).toBeLessThan(most);
            const flip = turnOf(a, k).reduce((sum, x, c) => sum + x * turnOf(b, n)[c], 0);
            // Frames without twist turn by no more than the path does (Bishop, There is more than one way to frame a curve,
            // American Mathematical Monthly 82, 1975).
            expect(2 * Math.acos(Math.min(1, Math.abs(flip)))).toBeLessThan(bend + 0.01);
          }
          before = b;
        }
        expect(before).not.toBeNull();
      },
    ),
    { numRuns: 12 },
  );
});
