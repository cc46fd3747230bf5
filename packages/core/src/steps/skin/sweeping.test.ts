import { putFile } from '../../testing';
import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { at, dot, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene } from '../../scene/schema';
import { form, circle, withShipped } from '../../../test/paths';

withShipped();

describe('ribbon', () => {
  const tilted = newStep('line', { fromX: 0, fromY: 0, toX: 2, toY: 1, points: 30 });
  const plain = { along: [{ at: 0, value: 1 }], swell: 0, radius: 0.2, thick: 0.02 };

  test('flat ends: width times thickness times length; round ends add a disc', async () => {
    const flat = await form([tilted, newStep('ribbon', { ...plain, start: 'flat', end: 'flat' })]);
    expect(areaAndVolume(flat.mesh!).volume).toBeCloseTo(0.4 * 0.02 * Math.sqrt(5), 5);
    expect(topologyCounts(flat.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    const round = await form([tilted, newStep('ribbon', { ...plain, start: 'round', end: 'round' })]);
    const disc = areaAndVolume(round.mesh!).volume - areaAndVolume(flat.mesh!).volume;
    expect(disc / (Math.PI * 0.2 ** 2 * 0.02)).toBeCloseTo(1, 1);
    expect(topologyCounts(round.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0 });
  });

  // Helicoids: do Carmo, Differential Geometry of Curves and Surfaces, 1976, section 3-3, example 1; each cross-section
  // is the rectangle still, so that the volume is that of the straight band (Cavalieri).
  test.each([0.5, 2, 5])(
    'twisted by %f turns its edges are helices, and it has as much volume as untwisted',
    async (twist) => {
      const [a, length, thick] = [0.03, 2, 0.004];
      const { mesh } = await form([
        newStep('line', { fromY: 0, toY: length, points: 4000 }),
        newStep('ribbon', { ...plain, radius: a, thick, twist, start: 'flat', end: 'flat' }),
      ]);
      const w = (2 * Math.PI * twist) / length;
      // Squares out of plane are split: each face stands off by up to a third of what a side of them is turned.
      const split = ((a * w * length) / 4000 / thick) * 0.4;
      expect(Math.abs(areaAndVolume(mesh!).volume / (2 * a * thick * length) - 1)).toBeLessThan(split + 1e-4);
      // Its edges are helices.
      const half = Math.hypot(a, thick / 2);
      const { positions } = mesh!;
      const [fx, , fz] = positions;
      let [off, astray] = [0, 0];
      for (let i = 0; i < positions.length; i += 3) {
        const [x, y, z] = [positions[i], positions[i + 1], positions[i + 2]];
        off = Math.max(off, Math.abs(Math.hypot(x, z) - half));
        // From where the first corner is, turned on; four corners, two by two across.
        const turned = Math.atan2(z, x) - Math.atan2(fz, fx) + w * y;
        astray = Math.max(astray, Math.abs(Math.sin(turned)));
      }
      expect(off).toBeLessThan(5e-5);
      expect(astray).toBeLessThan(thick / a + 1e-3);
      expect(positions.length / 3).toBeGreaterThan(4000);
    },
  );

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
    expect(topologyCounts(mesh!).openEdges).toBe(0);
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
      expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
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
    expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 0 });
    expect(areaAndVolume(mesh).volume / (Math.PI * (1 - 0.25) * 0.25 * 2)).toBeCloseTo(1, 2);
  });

  test('an SVG file is swept, its inner path a hole', async () => {
    const mesh = await swept({ profile: 'svg', drawing: 'd' }, straight, (scene) =>
      putFile(scene, 'd', 'svg', '<svg><path d="M0 0H40V40H0ZM10 10V30H30V10Z"/></svg>'),
    );
    expect(areaAndVolume(mesh).volume).toBeCloseTo((4 - 1) * 0.25 * 2, 5);
    expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, euler: 0 });
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
