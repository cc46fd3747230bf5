import { helixPoints } from './helix';
import { carryNormals, pathNormals, tangents, transport } from './frames';
import { at, cross, dot, type Vec3 } from '../geometry/vec';

/*
 * Closed forms of the circular helix (r cos t, c t, r sin t): curvature r / (r² + c²), torsion c / (r² + c²), length
 * t √(r² + c²). Source: M. do Carmo, Differential Geometry of Curves and Surfaces, 1976, section 1-5, exercise 1.
 */
const r = 0.5;
const pitch = 0.8; // rise a turn
const turns = 3;
const c = pitch / (2 * Math.PI);
const speed = Math.hypot(r, c);
const torsion = c / (r * r + c * c);

/** Exact points, tangents and principal normals at n + 1 even angles. */
function exactHelix(n: number): { positions: Float64Array; tangents: Float64Array; principal: Vec3[] } {
  const positions = new Float64Array(3 * (n + 1));
  const tangents = new Float64Array(3 * (n + 1));
  const principal: Vec3[] = [];
  for (let i = 0; i <= n; i++) {
    const t = (2 * Math.PI * turns * i) / n;
    positions.set([r * Math.cos(t), c * t, -r * Math.sin(t)], 3 * i);
    tangents.set([(-r * Math.sin(t)) / speed, c / speed, (-r * Math.cos(t)) / speed], 3 * i);
    principal.push([-Math.cos(t), 0, Math.sin(t)]);
  }
  return { positions, tangents, principal };
}

/** Angle of the transported normal against the Frenet normal at the end, radians, unwound along the way. */
function turnAgainstFrenet(n: number): number {
  const { positions, tangents: along, principal } = exactHelix(n);
  const normals = new Float64Array(positions.length);
  transport(positions, 0, along, principal[0], normals);
  let turn = 0;
  let before = 0;
  for (let i = 1; i <= n; i++) {
    const t = at(along, i);
    const angle = Math.atan2(dot(cross(principal[i], at(normals, i)), t), dot(principal[i], at(normals, i)));
    turn += Math.atan2(Math.sin(angle - before), Math.cos(angle - before));
    before = angle;
  }
  return turn;
}

/** Normals of a whole path from its points alone; returns the residual twist, degrees. */
function normalsOf(points: Float64Array, closed: boolean, out: Float64Array): number {
  const n = points.length / 3;
  const along = new Float64Array(points.length);
  tangents(points, 0, n, closed, along);
  return pathNormals(points, 0, n, closed, out, along);
}

describe('frames without twist', () => {
  // Against the Frenet frame they turn back by the integral of the torsion: Wang et al. 2008, section 2; Bishop, There
  // is more than one way to frame a curve, American Mathematical Monthly 82, 1975.
  const length = 2 * Math.PI * turns * speed;
  const theory = -torsion * length;

  test('turn against the Frenet frame by the integral of the torsion', () => {
    expect(turnAgainstFrenet(2000)).toBeCloseTo(theory, 9);
  });

  // Wang et al. 2008, section 5: the global error of double reflection is O(h⁴).
  test('converge with the fourth order', () => {
    const errors = [60, 120, 240, 480].map((n) => Math.abs(turnAgainstFrenet(n) - theory));
    for (let i = 1; i < errors.length; i++) {
      const order = Math.log2(errors[i - 1] / errors[i]);
      expect(order).toBeGreaterThan(3.8);
      expect(order).toBeLessThan(4.3);
    }
  });

  test('stay unit length and square to the path on points without exact tangents', () => {
    const points = helixPoints({ below: 1, above: 0.2, height: 2, turns: 5, start: 30 }, 500);
    const normals = new Float64Array(points.length);
    normalsOf(points, false, normals);
    for (let i = 1; i < 499; i++) {
      const chord = [0, 1, 2].map((k) => points[3 * i + 3 + k] - points[3 * i - 3 + k]) as [number, number, number];
      const n = at(normals, i);
      expect(Math.hypot(...n)).toBeCloseTo(1, 9);
      expect(Math.abs(dot(n, chord)) / Math.hypot(...chord)).toBeLessThan(2e-3);
    }
  });

  test('a straight path keeps one normal throughout, doubled points included', () => {
    const points = new Float64Array([0, 0, 0, 0, 1, 0, 0, 1, 0, 0, 2, 0]);
    const normals = new Float64Array(12);
    normalsOf(points, false, normals);
    for (let i = 1; i < 4; i++) for (const k of [0, 1, 2]) expect(at(normals, i)[k]).toBeCloseTo(at(normals, 0)[k], 12);
  });

  test('a closed path in space meets itself after its residual twist is spread', () => {
    const n = 400;
    const points = new Float64Array(3 * n);
    for (let i = 0; i < n; i++) {
      const t = (2 * Math.PI * i) / n;
      points.set([Math.cos(t), 0.6 * Math.sin(2 * t), Math.sin(t) + 0.3 * Math.cos(3 * t)], 3 * i);
    }
    const normals = new Float64Array(3 * n);
    const twist = normalsOf(points, true, normals);
    expect(Math.abs(twist)).toBeGreaterThan(1); // else the test would show nothing
    // Neighbours turn by little everywhere, across the seam as elsewhere.
    const jumps = Array.from({ length: n }, (_, i) =>
      Math.acos(Math.min(1, dot(at(normals, i), at(normals, (i + 1) % n)))),
    );
    const typical = jumps.reduce((sum, jump) => sum + jump, 0) / n;
    expect(jumps[n - 1]).toBeLessThan(4 * typical);
  });

  test('a flat closed path has no twist to spread', () => {
    const points = helixPoints({ below: 1, above: 1, height: 0, turns: 0.99, start: 0 }, 100);
    expect(Math.abs(normalsOf(points, true, new Float64Array(300)))).toBeLessThan(1e-9);
  });
});

test.each([false, true])(
  'frames that are twisted at rest stand as they stood where nothing has moved, closed: %s',
  (closed) => {
    const n = 60;
    const { positions: open } = exactHelix(n);
    // Closed, a ring that goes up and down.
    const ring = Float64Array.from({ length: 3 * (n + 1) }, (_, i) => {
      const t = (2 * Math.PI * Math.floor(i / 3)) / (n + 1);
      return [Math.cos(t), 0.3 * Math.sin(2 * t), Math.sin(t)][i % 3];
    });
    const positions = closed ? ring : open;
    const t = new Float64Array(positions.length);
    tangents(positions, 0, n + 1, closed, t);
    const normals = new Float64Array(positions.length);
    pathNormals(positions, 0, n + 1, closed, normals, t);
    // A whole turn over its length, however it began.
    for (let i = 0; i <= n; i++) {
      const [way, side] = [at(t, i), at(normals, i)];
      const across = cross(way, side);
      const angle = 0.4 + (2 * Math.PI * i) / (n + (closed ? 1 : 0));
      normals.set(
        [0, 1, 2].map((k) => side[k] * Math.cos(angle) + across[k] * Math.sin(angle)),
        3 * i,
      );
    }
    const moved = positions.map((x, i) => x + [2, -1, 0.5][i % 3]);
    const now = { positions: moved, tangents: t, normals: new Float64Array(positions.length) };
    carryNormals({ positions, tangents: t, normals }, now, 0, n + 1, closed);
    // Closed, the twist is spread evenly over the length.
    for (let i = 0; i <= n; i++)
      expect(dot(at(now.normals, i), at(normals, i))).toBeGreaterThan(closed ? 0.98 : 1 - 1e-9);
  },
);

test('a path of one point has a normal square to its tangent, and one of none has nothing to write', () => {
  const along = Float64Array.from([0, 0.6, 0.8]);
  const out = new Float64Array(3);
  expect(pathNormals(new Float64Array(3), 0, 1, false, out, along)).toBe(0);
  expect(Math.hypot(...out)).toBeCloseTo(1, 12);
  expect(dot(at(out, 0), at(along, 0))).toBeCloseTo(0, 12);
  const empty = new Float64Array(0);
  expect(pathNormals(empty, 0, 0, false, empty, empty)).toBe(0);
});
