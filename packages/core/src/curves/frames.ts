import { type Flat, type Vec3, add, at, cross, dot, perpendicular, scale, sub, unit } from '../geometry/vec';

/**
 * Unit tangents at the points `first` up to `end` of a polyline: the direction of the circle through each point and its
 * two neighbours, which is second-order exact; the end segments' direction at open ends.
 * @param out 3(end − first) entries
 */
export function tangents(positions: Flat, first: number, end: number, closed: boolean, out: Flat): void {
  const n = end - first;
  let [px, py, pz] = [0, 1, 0];
  for (let k = 0; k < n; k++) {
    const here = 3 * (first + k);
    const before = k > 0 ? here - 3 : closed ? 3 * (end - 1) : here;
    const after = k < n - 1 ? here + 3 : closed ? 3 * first : here;
    const ax = positions[here] - positions[before];
    const ay = positions[here + 1] - positions[before + 1];
    const az = positions[here + 2] - positions[before + 2];
    const bx = positions[after] - positions[here];
    const by = positions[after + 1] - positions[here + 1];
    const bz = positions[after + 2] - positions[here + 2];
    // Weighted by the other side's squared length: the derivative of the parabola through the three points.
    const wa = bx * bx + by * by + bz * bz;
    const wb = ax * ax + ay * ay + az * az;
    let x: number;
    let y: number;
    let z: number;
    if (wa === 0) [x, y, z] = [ax, ay, az];
    else if (wb === 0) [x, y, z] = [bx, by, bz];
    else {
      const ra = Math.sqrt(wa / wb);
      const rb = 1 / ra;
      x = ax * ra + bx * rb;
      y = ay * ra + by * rb;
      z = az * ra + bz * rb;
    }
    const length = Math.sqrt(x * x + y * y + z * z);
    if (length > 1e-20) {
      px = x / length;
      py = y / length;
      pz = z / length;
    }
    // A point without direction of its own (all neighbours in one place) takes its predecessor's.
    out[3 * k] = px;
    out[3 * k + 1] = py;
    out[3 * k + 2] = pz;
  }
}

/**
 * Carries a normal along a curve without twist by double reflection: Wang, Jüttler, Zheng, Liu, Computation of rotation
 * minimizing frames, ACM Transactions on Graphics 27(1), 2008. The error is of fourth order in the spacing when the
 * tangents are exact.
 *
 * @param positions xyz triples; point `first` is the first used
 * @param tangent unit tangents, 3n entries
 * @param start unit normal at the first point, square to its tangent
 * @param out receives 3n entries: the normals
 */
export function transport(positions: Flat, first: number, tangent: Flat, start: Vec3, out: Flat): void {
  const n = tangent.length / 3;
  let [rx, ry, rz] = start;
  if (n > 0) out.set(start, 0);
  for (let i = 0; i < n - 1; i++) {
    const p = 3 * (first + i);
    const t = 3 * i;
    const v1x = positions[p + 3] - positions[p];
    const v1y = positions[p + 4] - positions[p + 1];
    const v1z = positions[p + 5] - positions[p + 2];
    const c1 = v1x * v1x + v1y * v1y + v1z * v1z;
    let tx = tangent[t];
    let ty = tangent[t + 1];
    let tz = tangent[t + 2];
    if (c1 > 0) {
      // First reflection: in the plane that halves the segment.
      const r = (2 * (v1x * rx + v1y * ry + v1z * rz)) / c1;
      const q = (2 * (v1x * tx + v1y * ty + v1z * tz)) / c1;
      rx -= r * v1x;
      ry -= r * v1y;
      rz -= r * v1z;
      tx -= q * v1x;
      ty -= q * v1y;
      tz -= q * v1z;
    }
    // Second reflection: takes the reflected tangent to the next one.
    const nx = tangent[t + 3];
    const ny = tangent[t + 4];
    const nz = tangent[t + 5];
    const v2x = nx - tx;
    const v2y = ny - ty;
    const v2z = nz - tz;
    const c2 = v2x * v2x + v2y * v2y + v2z * v2z;
    if (c2 > 0) {
      const r = (2 * (v2x * rx + v2y * ry + v2z * rz)) / c2;
      rx -= r * v2x;
      ry -= r * v2y;
      rz -= r * v2z;
    }
    // Rounding drifts over many thousand points: back to the plane square to the tangent, and to unit length.
    const along = rx * nx + ry * ny + rz * nz;
    rx -= along * nx;
    ry -= along * ny;
    rz -= along * nz;
    const k = 1 / Math.sqrt(rx * rx + ry * ry + rz * rz);
    rx *= k;
    ry *= k;
    rz *= k;
    out[t + 3] = rx;
    out[t + 4] = ry;
    out[t + 5] = rz;
  }
}

/**
 * A unit vector taken along by the least turn that brings the unit vector `from` to the unit vector `to`: the turn about
 * their common perpendicular (Rodrigues). What is square to `from` changes at most (1 + tan θ/2) times as fast as they do,
 * θ being the angle between them, and has one choice to make only where they are opposite.
 */
export function carryFrames(v: Vec3, from: Vec3, to: Vec3): Vec3 {
  const near = 1 + dot(from, to);
  // Opposite: half a turn about the vector itself, and about nothing where it lies along them.
  if (near < 1e-12) return dot(v, from) > 0.5 ? to : v;
  const middle = add(from, to);
  return unit(add(sub(v, scale(middle, dot(v, middle) / near)), scale(to, 2 * dot(v, from))), v);
}

/**
 * The normal that a path begins with which follows from no other: forward for a path in the plane of the screen. It goes
 * along with the tangent without a jump, save where that points straight to the left.
 */
export const firstNormal = (tangent: Vec3): Vec3 => carryFrames([0, 0, 1], [1, 0, 0], tangent);

/**
 * Twist-free normals of one path. On a closed path the twist left over after one round is spread evenly over its
 * length, so that the frame meets itself.
 * @param out receives 3(end − first) entries
 * @param tangent unit tangents of these points, as `tangents` gives them
 * @returns the twist that was spread, degrees; 0 on open paths
 */
export function pathNormals(
  positions: Flat,
  first: number,
  end: number,
  closed: boolean,
  out: Flat,
  tangent: Flat,
): number {
  const n = end - first;
  if (n === 0) return 0;
  const start = firstNormal(at(tangent, 0));
  transport(positions, first, tangent, start, out);
  if (!closed || n < 3) return 0;

  const twist = closingAngle(positions, first, end, tangent, out, start);
  const along = shares(positions, first, end);
  for (let i = 1; i < n; i++) rotateNormal(out, tangent, i, twist * along[i]);
  return (twist * 180) / Math.PI;
}

/** The angle about the first tangent from the frame that has come round a closed path to a normal at its first point, radians. */
function closingAngle(positions: Flat, first: number, end: number, tangent: Flat, normals: Flat, to: Vec3): number {
  const n = end - first;
  // One more hop, from the last point to the first, shows by how much the frame misses itself.
  const hop = new Float64Array([...at(positions, end - 1), ...at(positions, first)]);
  const hopTangents = new Float64Array([...at(tangent, n - 1), ...at(tangent, 0)]);
  const met = new Float64Array(6);
  transport(hop, 0, hopTangents, at(normals, n - 1), met);
  return angleAbout(at(tangent, 0), at(met, 1), to);
}

/** The angle about the unit vector `t` that brings one unit vector square to it to another, radians in (−π, π]. */
const angleAbout = (t: Vec3, from: Vec3, to: Vec3): number => Math.atan2(dot(cross(from, to), t), dot(from, to));

/** Share of the length of a closed path at which each of its points lies. */
function shares(positions: Flat, first: number, end: number): Float64Array {
  const n = end - first;
  const along = new Float64Array(n);
  let sum = 0;
  for (let i = 1; i <= n; i++) {
    const [a, b] = [at(positions, first + i - 1), at(positions, i < n ? first + i : first)];
    sum += Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
    if (i < n) along[i] = sum;
  }
  if (sum > 0) for (let i = 1; i < n; i++) along[i] /= sum;
  return along;
}

/**
 * Tangents of a path that has been moved. Those at cut ends were taken from the whole path, which is no longer there: they are
 * taken along with the end's own.
 */
export function movedTangents(
  rest: FramedCourse,
  now: FramedCourse,
  first: number,
  end: number,
  closed: boolean,
): void {
  const n = end - first;
  const { tangents: t } = now;
  tangents(now.positions, first, end, closed, t);
  if (closed || n < 2) return;
  for (const [i, p] of [
    [0, first],
    [n - 1, end - 2],
  ]) {
    const was = unit(sub(at(rest.positions, p + 1), at(rest.positions, p)), at(rest.tangents, i));
    t.set(carryFrames(at(rest.tangents, i), was, at(t, i)), 3 * i);
  }
}

/** Points of a path with frames. */
export interface FramedCourse {
  /** xyz triples of all paths. */
  positions: Flat;
  /** Unit vectors of this path's points alone, 3n entries each. */
  tangents: Flat;
  normals: Flat;
}

/**
 * Frames of a path that has been moved, from its frames at rest: the first is taken along by the least turn of its tangent,
 * the others follow without twist but for what they had at rest. So they hang on both shapes alone, and not on the frame
 * that was shown before.
 *
 * How far a frame without twist turns while its curve moves is the area that the tangents sweep on the sphere (Fuller,
 * Decomposition of the linking number of a closed ribbon, PNAS 75, 1978, equation 6.2): as a whole no more than the path's
 * total curvature times what the tangents turn. Where the first tangent comes to lie against its rest, the least turn is no
 * guide any more, and the rest of the path leads instead.
 *
 * On a closed path the turns that the frame makes in one round are counted, not only what is left of them: summed up
 * along the path, against the frame at rest that each tangent takes along.
 *
 * @param rest the path as it was, and `now` as it is: `now.normals` receives 3(end − first) entries
 */
export function carryNormals(rest: FramedCourse, now: FramedCourse, first: number, end: number, closed: boolean): void {
  const n = end - first;
  if (n === 0) return;
  const { tangents: t, normals: out } = now;
  const led = (i: number): Vec3 => carryFrames(at(rest.normals, i), at(rest.tangents, i), at(t, i));
  transport(now.positions, first, t, led(0), out);
  if (closed && n > 2) {
    let turn = 0;
    let before = 0;
    for (let i = 1; i < n; i++) {
      const angle = angleAbout(at(t, i), at(out, i), led(i));
      turn += nearest(angle - before);
      before = angle;
    }
    turn += nearest(closingAngle(now.positions, first, end, t, out, at(out, 0)) - before);
    const along = shares(now.positions, first, end);
    for (let i = 1; i < n; i++) rotateNormal(out, t, i, turn * along[i]);
  } else twistAsAtRest(rest, now, first, n);
  const roll = rollOfWhole(rest, now, first, n);
  if (Math.abs(roll) <= 1e-7) return;
  const [cosine, sine] = [Math.cos(roll), Math.sin(roll)];
  for (let i = 0; i < n; i++) rotateBy(out, t, i, cosine, sine);
}

/** Turns frames that follow without twist by what those at rest are turned against such. */
function twistAsAtRest(rest: FramedCourse, now: FramedCourse, first: number, n: number): void {
  const { tangents: r, normals: m } = rest;
  const plain = new Float64Array(3 * n);
  transport(rest.positions, first, r, at(m, 0), plain);
  for (let q = 3; q < 3 * n; q += 3) {
    const sine =
      (plain[q + 1] * m[q + 2] - plain[q + 2] * m[q + 1]) * r[q] +
      (plain[q + 2] * m[q] - plain[q] * m[q + 2]) * r[q + 1] +
      (plain[q] * m[q + 1] - plain[q + 1] * m[q]) * r[q + 2];
    const cosine = plain[q] * m[q] + plain[q + 1] * m[q + 1] + plain[q + 2] * m[q + 2];
    if (Math.abs(sine) > 1e-5 || cosine < 0) rotateNormal(now.normals, now.tangents, q / 3, Math.atan2(sine, cosine));
  }
}

/**
 * By how much all frames of a path roll so that they agree with those that its points take along, each by itself, radians. The
 * first point has the say as long as it lies as at rest; the further it has turned, the more have the others, those before much
 * bending most.
 */
function rollOfWhole(rest: FramedCourse, now: FramedCourse, first: number, n: number): number {
  const { positions, tangents: t, normals } = now;
  const { tangents: from, normals: led } = rest;
  const others = (1 - (from[0] * t[0] + from[1] * t[1] + from[2] * t[2])) / 2;
  if (others < 1e-9) return 0;
  let cosine = 0;
  let sine = 0;
  let weight = 0;
  let bent = 0;
  for (let q = 3; q < 3 * n; q += 3) {
    const [tx, ty, tz] = [t[q], t[q + 1], t[q + 2]];
    bent += Math.acos(Math.min(1, Math.max(-1, tx * t[q - 3] + ty * t[q - 2] + tz * t[q - 1])));
    const p = 3 * first + q;
    const [dx, dy, dz] = [
      positions[p] - positions[p - 3],
      positions[p + 1] - positions[p - 2],
      positions[p + 2] - positions[p - 1],
    ];
    const w = Math.sqrt(dx * dx + dy * dy + dz * dz) * Math.exp(-bent);
    weight += w;
    // The normal at rest, taken along as `carryFrames` does; its length makes no difference to the angle.
    const [fx, fy, fz] = [from[q], from[q + 1], from[q + 2]];
    let [vx, vy, vz] = [led[q], led[q + 1], led[q + 2]];
    const near = 1 + fx * tx + fy * ty + fz * tz;
    if (near >= 1e-12) {
      const [mx, my, mz] = [fx + tx, fy + ty, fz + tz];
      const k = (vx * mx + vy * my + vz * mz) / near;
      const l = 2 * (vx * fx + vy * fy + vz * fz);
      vx += l * tx - k * mx;
      vy += l * ty - k * my;
      vz += l * tz - k * mz;
    }
    const [nx, ny, nz] = [normals[q], normals[q + 1], normals[q + 2]];
    const c = nx * vx + ny * vy + nz * vz;
    const s = (ny * vz - nz * vy) * tx + (nz * vx - nx * vz) * ty + (nx * vy - ny * vx) * tz;
    const length = Math.sqrt(c * c + s * s);
    cosine += length > 0 ? (w * c) / length : w;
    sine += length > 0 ? (w * s) / length : 0;
  }
  return weight > 0 ? Math.atan2((others * sine) / weight, 1 - others + (others * cosine) / weight) : 0;
}

/** An angle by whole turns as near to 0 as it comes, radians. */
const nearest = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

const rotateNormal = (normals: Flat, tangent: Flat, i: number, angle: number): void =>
  rotateBy(normals, tangent, i, Math.cos(angle), Math.sin(angle));

function rotateBy(normals: Flat, tangent: Flat, i: number, cosine: number, sine: number): void {
  const q = 3 * i;
  const [tx, ty, tz] = [tangent[q], tangent[q + 1], tangent[q + 2]];
  const [nx, ny, nz] = [normals[q], normals[q + 1], normals[q + 2]];
  const x = nx * cosine + (ty * nz - tz * ny) * sine;
  const y = ny * cosine + (tz * nx - tx * nz) * sine;
  const z = nz * cosine + (tx * ny - ty * nx) * sine;
  const length = Math.sqrt(x * x + y * y + z * z);
  if (!(length > 1e-20)) return;
  normals[q] = x / length;
  normals[q + 1] = y / length;
  normals[q + 2] = z / length;
}

/** Makes one normal square to its tangent, and of length 1. */
export function squareOff(tangent: Flat, normals: Flat, i: number, out: Flat = normals): void {
  const q = 3 * i;
  const tx = tangent[q];
  const ty = tangent[q + 1];
  const tz = tangent[q + 2];
  const along = normals[q] * tx + normals[q + 1] * ty + normals[q + 2] * tz;
  const x = normals[q] - along * tx;
  const y = normals[q + 1] - along * ty;
  const z = normals[q + 2] - along * tz;
  const length = Math.sqrt(x * x + y * y + z * z);
  if (!(length > 1e-20)) {
    out.set(perpendicular([tx, ty, tz]), q);
    return;
  }
  out[q] = x / length;
  out[q + 1] = y / length;
  out[q + 2] = z / length;
}
