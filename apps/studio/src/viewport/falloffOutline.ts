import { add, type FalloffShape, rotationOf, turnedBy, type Vec3 } from '@uvrex/core';

const AROUND = 48;

/** Lines that show a falloff's border, moved outwards by so many metres. */
export function outlineOf({ which, centre, rotation, size }: FalloffShape, out: number): Vec3[][] {
  const turn = rotationOf(rotation);
  const put = (place: Vec3): Vec3 => add(centre, turnedBy(turn, place));
  if (which === 'ball') {
    const r = Math.max(0, size[0] / 2 + out);
    return ([0, 1, 2] as const).map((axis) =>
      Array.from({ length: AROUND + 1 }, (_, k) => {
        const angle = (2 * Math.PI * k) / AROUND;
        const place: [number, number, number] = [0, 0, 0];
        place[(axis + 1) % 3] = r * Math.cos(angle);
        place[(axis + 2) % 3] = r * Math.sin(angle);
        return put(place);
      }),
    );
  }
  if (which === 'plane') {
    const corners: Vec3[] = [
      [-1, out, -1],
      [1, out, -1],
      [1, out, 1],
      [-1, out, 1],
      [-1, out, -1],
    ];
    return [corners.map(put)];
  }
  const half = size.map((x) => Math.max(0, x / 2 + out));
  const ring = (y: number): Vec3[] =>
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
      [-1, -1],
    ].map(([x, z]) => put([x * half[0], y * half[1], z * half[2]]));
  const [low, high] = [ring(-1), ring(1)];
  return [low, high, ...[0, 1, 2, 3].map((k) => [low[k], high[k]])];
}
