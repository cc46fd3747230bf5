import { at, distance } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { paths } from '../../../test/paths';

/** A path that leans, turns back and has a width, so that every limit of its box comes from another part of it. */
const course = () =>
  newStep('drawn', {
    points: 120,
    anchors: [
      [0.1, 0.2, 0],
      [0.5, 1, 0.2],
      [-0.6, 2, 0],
      [0.2, 1.4, -0.3],
    ],
  });

describe('what is deformed in shares of the whole keeps its place while it grows', () => {
  test.each<[string, Record<string, ParamValue>]>([
    ['taper', {}],
    ['stretch', { from: 'high' }],
    ['stretch', { axis: 'x', from: 'middle', keeps: false, across: 0.5 }],
    ['cup', { angle: 200 }],
    ['fold', { angle: 50, low: 0.2, high: 0.6 }],
    ['roll-up', { amount: 0.8 }],
    ['roll-up', { amount: 0.7, from: 'middle' }],
    ['twist', { low: 0.2, high: 0.5 }],
    ['noise', { evolve: 0, low: 0.3, high: 0.8 }],
  ])('%s', async (kind, params) => {
    const grown = (to: number, more = 0) =>
      paths([
        course(),
        newStep('grow', { to }),
        // What is moved in between takes the whole along.
        ...(more ? [newStep('transform', { turnZ: 30, moveX: 0.4 })] : []),
        newStep(kind, params),
      ]);
    for (const more of [0, 1]) {
      const whole = await grown(1, more);
      for (const to of [0.2, 0.55, 0.9]) {
        const part = await grown(to, more);
        // All but the cut end, which is no point of the whole path.
        for (let i = 0; i < part.s.length - 1; i++)
          expect(distance(at(part.positions, i), at(whole.positions, i))).toBeLessThan(2e-3);
      }
    }
  });
});
