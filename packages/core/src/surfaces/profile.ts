/**
 * A closed contour to be swept, in the plane square to a path: x along the path's normal, y along tangent × normal. It
 * runs anticlockwise seen from the path's tip, and every point of it is seen from the middle, so that caps can be fans.
 */
export interface SweepProfile {
  /** Places in units of the radius; the last column repeats the first. Hard corners stand twice. */
  x: Float64Array;
  y: Float64Array;
  /** Outward unit normals of the columns. */
  nx: Float64Array;
  ny: Float64Array;
  /** 0 where a column begins a new face at a hard corner. */
  joined: Uint8Array;
  /** Share of the way round, 0..1, for texture coordinates. */
  share: Float64Array;
}

/** A circle of straight sides with smooth normals. */
export function circleProfile(sides: number): SweepProfile {
  const corners = Array.from({ length: sides }, (_, j): [number, number] => [
    Math.cos((2 * Math.PI * j) / sides),
    Math.sin((2 * Math.PI * j) / sides),
  ]);
  return contourProfile(corners, false, corners);
}

/** A regular polygon on the unit circle. */
export const polygonCorners = (corners: number): [number, number][] =>
  Array.from({ length: corners }, (_, j) => [
    Math.cos((2 * Math.PI * j) / corners),
    Math.sin((2 * Math.PI * j) / corners),
  ]);

/** A star: points on the unit circle, notches at `inner` of it. */
export const starCorners = (points: number, inner: number): [number, number][] =>
  Array.from({ length: 2 * points }, (_, j) => {
    const r = j % 2 ? inner : 1;
    return [r * Math.cos((Math.PI * j) / points), r * Math.sin((Math.PI * j) / points)];
  });

/** A cross of four equal arms that reach to ±1; `arm` is their breadth, 0..1 of the whole. */
export function crossCorners(arm: number): [number, number][] {
  const a = arm;
  return [
    [1, -a],
    [1, a],
    [a, a],
    [a, 1],
    [-a, 1],
    [-a, a],
    [-1, a],
    [-1, -a],
    [-a, -a],
    [-a, -1],
    [a, -1],
    [a, -a],
  ];
}

/** A flat band from −1 to 1, `thick` of that high. */
export const bandCorners = (thick: number): [number, number][] => [
  [1, -thick],
  [1, thick],
  [-1, thick],
  [-1, -thick],
];

/**
 * Columns of a contour.
 * @param corners anticlockwise, each seen from the middle
 * @param hard keeps its edges in the normals
 * @param normals smooth normals of the corners; the mean of the neighbouring sides where left out
 */
export function contourProfile(
  corners: readonly (readonly [number, number])[],
  hard: boolean,
  normals?: readonly (readonly [number, number])[],
): SweepProfile {
  const n = corners.length;
  const side = (j: number): [number, number] => {
    const [a, b] = [corners[j % n], corners[(j + 1) % n]];
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
  };
  const smooth = (j: number): readonly [number, number] => {
    if (normals) return normals[j % n];
    const [a, b] = [side((j + n - 1) % n), side(j % n)];
    const sum = [a[0] + b[0], a[1] + b[1]];
    const length = Math.hypot(sum[0], sum[1]);
    return length > 1e-9 ? [sum[0] / length, sum[1] / length] : a;
  };
  const columns = hard ? 2 * n : n + 1;
  const profile: SweepProfile = {
    x: new Float64Array(columns),
    y: new Float64Array(columns),
    nx: new Float64Array(columns),
    ny: new Float64Array(columns),
    joined: new Uint8Array(columns),
    share: new Float64Array(columns),
  };
  let round = 0;
  const lengths = corners.map((a, j) => Math.hypot(corners[(j + 1) % n][0] - a[0], corners[(j + 1) % n][1] - a[1]));
  const total = lengths.reduce((sum, length) => sum + length, 0);
  const put = (column: number, j: number, normal: readonly [number, number], joined: boolean, way: number): void => {
    profile.x[column] = corners[j % n][0];
    profile.y[column] = corners[j % n][1];
    profile.nx[column] = normal[0];
    profile.ny[column] = normal[1];
    profile.joined[column] = joined ? 1 : 0;
    profile.share[column] = way;
  };
  for (let j = 0; j < n; j++) {
    if (hard) {
      put(2 * j, j, side(j), false, round / total);
      put(2 * j + 1, j + 1, side(j), true, (round + lengths[j]) / total);
    } else put(j, j, smooth(j), j > 0, round / total);
    round += lengths[j];
  }
  if (!hard) put(n, n, smooth(n), true, 1);
  return profile;
}
