import { type Mesh, vertexCount } from '../../geometry/mesh';
import { at } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { mesh, sheet } from '../../../test/fronts';

describe('Measure', () => {
  const values = async (params: Record<string, ParamValue>, start = sheet()): Promise<Mesh> =>
    mesh([start, newStep('measure', { scale: 'measured', ...params })]);

  test('height, slope, thickness, along a direction, as measured and as shares', async () => {
    const up = await values({ what: 'height' });
    for (let i = 0; i < vertexCount(up); i += 11)
      expect(up.named.height.values[i]).toBeCloseTo(up.positions[3 * i + 1], 5);
    const round = newStep('solid', { which: 'ball', radius: 1, sides: 64 });
    const lean = await values({ what: 'slope' }, round);
    for (let i = 0; i < vertexCount(lean); i += 7)
      expect(lean.named.slope.values[i]).toBeCloseTo(
        (Math.acos(Math.min(1, lean.normals[3 * i + 1])) * 180) / Math.PI,
        2,
      );
    // Through a sphere's middle to the other side.
    const thick = await values({ what: 'thickness', name: 'mine' }, round);
    for (let i = 0; i < vertexCount(thick); i += 7) expect(Math.abs(thick.named.mine.values[i] - 2)).toBeLessThan(0.01);
    const along = await values({ what: 'direction', wayX: 1, wayY: 1, wayZ: 0 });
    for (let i = 0; i < vertexCount(along); i += 11)
      expect(along.named.direction.values[i]).toBeCloseTo(
        (along.positions[3 * i] + along.positions[3 * i + 1]) / Math.SQRT2,
        5,
      );
    const share = await values({
      what: 'height',
      scale: 'between',
      low: 0.5,
      high: 1.5,
      shape: [
        { at: 0, value: 1, shape: 'straight' },
        { at: 1, value: 0 },
      ] as never,
    });
    for (let i = 0; i < vertexCount(share); i += 11)
      expect(share.named.height.values[i]).toBeCloseTo(
        1 - Math.min(1, Math.max(0, share.positions[3 * i + 1] - 0.5)),
        2,
      );
  });

  test('on paths, points and copies too, and numbers go by it', async () => {
    const line = newStep('line', { fromX: 0, fromY: 0, toX: 0, toY: 2, points: 21 });
    const byHeight = {
      base: 0.1,
      vary: {
        by: 'attribute',
        attribute: 'up',
        span: [0, 2],
        amount: 0.3,
        waves: 1,
        shape: [
          { at: 0, value: 0, shape: 'straight' },
          { at: 1, value: 1 },
        ],
      },
    };
    const tube = newStep('tube', {
      radius: byHeight as never,
      swell: 0,
      sides: 12,
      start: 'open',
      end: 'open',
      along: [{ at: 0, value: 1 }] as never,
    });
    const made = await mesh([line, newStep('measure', { what: 'height', scale: 'measured', name: 'up' }), tube]);
    for (let i = 0; i < vertexCount(made); i++) {
      const [x, y, z] = at(made.positions, i);
      expect(Math.hypot(x, z)).toBeCloseTo(0.1 + 0.15 * y, 3);
    }
  });
});
