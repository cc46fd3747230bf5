import { type Paths, pathCount } from '../../geometry/paths';

/**
 * Seconds since the front passed each point.
 * @param share where a point lies on the way of its path's front, 0..1
 * @param reached how far the front of a path had come so many frames ago, 0..1
 * @param most frames to look back; what was there before counts as that old
 */
export function agesOf(
  paths: Paths,
  share: (u: number) => number,
  reached: (path: number, framesAgo: number) => number,
  most: number,
  fps: number,
): Float32Array {
  const age = new Float32Array(paths.s.length);
  for (let path = 0; path < pathCount(paths); path++) {
    const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
    const order = Array.from({ length: b - a }, (_, i) => a + i).sort((i, j) => share(paths.u[j]) - share(paths.u[i]));
    // From the front backwards, what lies further back was passed earlier: one walk serves all points.
    let ago = 0;
    let [here, before] = [1, reached(path, 0)];
    for (const i of order) {
      const place = share(paths.u[i]);
      while (ago < most && before > place) {
        here = before;
        before = reached(path, ++ago);
      }
      const exact =
        ago === 0 ? 0 : before > place ? ago : ago - 1 + (here > before ? (here - place) / (here - before) : 0);
      age[i] = Math.min(most, Math.max(0, exact)) / fps;
    }
  }
  return age;
}
