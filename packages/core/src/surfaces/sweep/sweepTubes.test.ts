import fc from 'fast-check';
import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { pathsFrom } from '../../geometry/paths';
import { helixPoints } from '../../curves/helix';
import { cutPaths } from '../../curves/cut';
import type { Cap, TubeShape } from './rings';
import { contourProfile, polygonCorners } from './sweepProfile';
import { sweepProfile, sweepTubes } from './sweepTubes';

const shape = (more: Partial<TubeShape> = {}): TubeShape => ({
  radius: 0.3,
  along: () => 1,
  follows: 'whole',
  swell: 0,
  sides: 64,
  start: 'flat',
  end: 'flat',
  ...more,
});

const circle = (radius: number, n: number) =>
  pathsFrom([
    {
      positions: helixPoints({ below: radius, above: radius, height: 0, turns: (n - 1) / n, start: 0 }, n),
      closed: true,
    },
  ]);
const line = (length: number, n = 20) =>
  pathsFrom([{ positions: Array.from({ length: n }, (_, i) => [0, (length * i) / (n - 1), 0]).flat() }]);

/** A polygon of n sides inscribed in a circle has n sin(2π/n) / 2π of its area and n sin(π/n) / π of its length. */
const areaShare = (n: number) => (n * Math.sin((2 * Math.PI) / n)) / (2 * Math.PI);
const lengthShare = (n: number) => (n * Math.sin(Math.PI / n)) / Math.PI;

describe('tube', () => {
  // Pappus's theorems: a circle of radius r swept along a circle of radius R makes a torus of area 4π²Rr and volume
  // 2π²Rr². Source: Bronshtein and Semendyayev, Handbook of Mathematics, geometry of solids.
  test("a circle swept along a circle has the torus's area and volume", async () => {
    const [R, r, n] = [2, 0.3, 256];
    const { area, volume } = areaAndVolume(await sweepTubes(circle(R, n), shape({ radius: r, sides: 128 })));
    expect(area / (4 * Math.PI ** 2 * R * r)).toBeCloseTo(lengthShare(128) * lengthShare(n), 3);
    expect(volume / (2 * Math.PI ** 2 * R * r * r)).toBeCloseTo(areaShare(128) * areaShare(n), 3);
  });

  test('and converges to them as it gets finer', async () => {
    const error = async (n: number) => {
      const { volume } = areaAndVolume(await sweepTubes(circle(2, n), shape({ sides: n })));
      return Math.abs(volume / (2 * Math.PI ** 2 * 2 * 0.09) - 1);
    };
    expect((await error(32)) / (await error(64))).toBeCloseTo(4, 0);
  });

  test('a straight tube is a cylinder: flat ends, exact for its polygon', async () => {
    const { area, volume } = areaAndVolume(await sweepTubes(line(2), shape({ sides: 24 })));
    expect(volume).toBeCloseTo(Math.PI * 0.09 * 2 * areaShare(24), 5);
    expect(area).toBeCloseTo(2 * Math.PI * 0.3 * 2 * lengthShare(24) + 2 * Math.PI * 0.09 * areaShare(24), 5);
  });

  test('round ends add a ball, pointed ends a cone each', async () => {
    const open = Math.PI * 0.09 * 2;
    const round = areaAndVolume(await sweepTubes(line(2), shape({ sides: 256, start: 'round', end: 'round' }))).volume;
    expect((round - open) / ((4 / 3) * Math.PI * 0.027)).toBeCloseTo(1, 2);
    const pointed = areaAndVolume(
      await sweepTubes(line(2), shape({ sides: 256, start: 'pointed', end: 'pointed' })),
    ).volume;
    expect((pointed - open) / (2 * ((Math.PI * 0.09 * 2.5 * 0.3) / 3))).toBeCloseTo(1, 2);
  });

  // Euler's polyhedron formula: V − E + F is 2 on anything like a ball, 0 on anything like a torus.
  test.each(['flat', 'round', 'pointed'] as Cap[])(
    'with %s ends it is watertight, with Euler characteristic 2',
    async (cap) => {
      const knotty = pathsFrom([
        { positions: helixPoints({ below: 0.8, above: 0.3, height: 2, turns: 3, start: 0 }, 80) },
      ]);
      const mesh = await sweepTubes(knotty, shape({ radius: 0.05, sides: 7, start: cap, end: cap }));
      expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
      expect(areaAndVolume(mesh).volume).toBeGreaterThan(0);
      expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
    },
  );

  test('closed it has Euler characteristic 0, and open ends leave two holes', async () => {
    expect(topologyCounts(await sweepTubes(circle(1, 40), shape({ radius: 0.1, sides: 9 })))).toMatchObject({
      euler: 0,
      openEdges: 0,
      flippedEdges: 0,
    });
    expect(topologyCounts(await sweepTubes(line(1), shape({ sides: 9, start: 'open', end: 'open' })))).toMatchObject({
      euler: 0,
      openEdges: 18,
    });
  });

  test('stays watertight where the profile tapers to nothing', async () => {
    const mesh = await sweepTubes(line(2), shape({ sides: 8, along: (u) => 1 - u, end: 'round' }));
    expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0 });
    // A cone: a third of the cylinder.
    expect(areaAndVolume(mesh).volume).toBeCloseTo((Math.PI * 0.09 * 2 * areaShare(8)) / 3, 4);
  });

  describe('thicker than its bend it never crosses itself', () => {
    const n = 40;
    const turn = Math.PI * (150 / 180);
    /** An arc of 150° and radius 0.2. */
    const arc = Array.from({ length: n }, (_, i) => {
      const a = (turn * i) / (n - 1);
      return [0.2 * Math.cos(a), 0.2 * Math.sin(a), 0];
    }).flat();
    /** Whether every place of the arc's rings lies ahead of that of the ring before. @param from its first vertex */
    const goesAhead = ({ positions }: Mesh, columns: number, from = 0): boolean => {
      for (let i = 0; i + 1 < n; i++) {
        const a = (turn * (i + 0.5)) / (n - 1);
        for (let j = 0; j < columns; j++) {
          const v = 3 * (from + i * columns + j);
          const [x, y] = [0, 1].map((c) => positions[v + 3 * columns + c] - positions[v + c]);
          if (!(y * Math.cos(a) - x * Math.sin(a) > 0)) return false;
        }
      }
      return true;
    };
    const thick = shape({ sides: 12, start: 'open', end: 'open' });

    test('at its first and last ring neither', async () => {
      expect(goesAhead(await sweepTubes(pathsFrom([{ positions: arc }]), thick), 13)).toBe(true);
    });

    test('behind a path whose points stand further apart', async () => {
      const far = Array.from({ length: 50 }, (_, i) => [0, 3 * i, 1]).flat();
      const mesh = await sweepTubes(pathsFrom([{ positions: far }, { positions: arc }]), thick);
      expect(goesAhead(mesh, 13, 50 * 13)).toBe(true);
    });

    test('where only the corners of its profile reach past the middle of the bend', async () => {
      const profile = contourProfile(
        polygonCorners(12).map(([x, y]) => [2.5 * x, 2.5 * y]),
        false,
      );
      const mesh = await sweepProfile(pathsFrom([{ positions: arc }]), profile, { ...thick, radius: 0.1 });
      expect(goesAhead(mesh, profile.x.length)).toBe(true);
    });
  });

  test('normals point away from the path, and lean back where it tapers', async () => {
    const mesh: Mesh = await sweepTubes(
      line(2),
      shape({ sides: 12, along: (u) => 1 - 0.5 * u, start: 'open', end: 'open' }),
    );
    const tilt = 0.15 / 2;
    for (let v = 0; v < mesh.positions.length / 3; v++) {
      const [x, , z] = mesh.positions.subarray(3 * v, 3 * v + 3);
      const [nx, ny, nz] = mesh.normals.subarray(3 * v, 3 * v + 3);
      expect((x * nx + z * nz) / Math.hypot(x, z)).toBeCloseTo(1 / Math.hypot(1, tilt), 4);
      expect(ny).toBeCloseTo(tilt / Math.hypot(1, tilt), 4);
    }
  });

  test('uvs are in even scale: as far along as around', async () => {
    const mesh = await sweepTubes(line(2), shape({ start: 'open', end: 'open' }));
    expect(Math.max(...mesh.uvs.filter((_, i) => i % 2 === 1))).toBeCloseTo(
      2 / (2 * Math.PI * 0.3 * lengthShare(64)),
      5,
    );
  });

  test('thickness fitted to the grown part ends at the tip at every moment', async () => {
    await fc.assert(
      fc.asyncProperty(fc.double({ min: 0.01, max: 1, noNaN: true }), async (to) => {
        const mesh = await sweepTubes(
          cutPaths(line(2), () => [0, to]),
          shape({ sides: 4, along: (u) => 1 - u, follows: 'grown', start: 'open' }),
        );
        const last = mesh.positions.length / 3 - 1;
        expect(mesh.positions[3 * last]).toBeCloseTo(0, 5);
        expect(mesh.positions[3 * last + 1]).toBeCloseTo(2 * to, 4);
        expect(mesh.tip![last]).toBeCloseTo(0, 5);
      }),
    );
  });

  test('swell brings thickness up from nothing, so that nothing pops into view', async () => {
    const radiusAt = async (to: number) => {
      const mesh = await sweepTubes(
        cutPaths(line(2), () => [0, to]),
        shape({ swell: 1, start: 'open', end: 'open' }),
      );
      return Math.hypot(mesh.positions[0], mesh.positions[2]);
    };
    expect(await radiusAt(0.001)).toBeLessThan(1e-4);
    expect(await radiusAt(0.25)).toBeCloseTo(0.15, 5);
    expect(await radiusAt(0.5)).toBeCloseTo(0.3, 5);
  });

  test('nothing grown gives an empty mesh, and paths of one point are passed over', async () => {
    expect(
      (
        await sweepTubes(
          cutPaths(line(2), () => [0, 0]),
          shape(),
        )
      ).indices,
    ).toHaveLength(0);
    expect((await sweepTubes(pathsFrom([{ positions: [0, 0, 0] }]), shape())).indices).toHaveLength(0);
  });
});
