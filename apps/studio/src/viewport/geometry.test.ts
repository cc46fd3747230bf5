import type { BufferGeometry } from 'three';
import { meshGeometry, releaseGeometry } from './geometry';

const faces = Uint32Array.of(0, 1, 2);
const skin = (height: number) => ({
  positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, height, 0),
  normals: new Float32Array(9),
  indices: faces,
  colors: null,
  glow: null,
  uvs: null,
});

/** What a geometry still has when it is disposed of: that is what three.js takes from the graphics. */
function takenBy(release: (geometry: BufferGeometry) => void, geometry: BufferGeometry): string[] {
  let taken: string[] = [];
  geometry.addEventListener('dispose', () => {
    taken = [...Object.keys(geometry.attributes), ...(geometry.index ? ['index'] : [])];
  });
  release(geometry);
  return taken;
}

test('what two geometries have in common is one attribute, and goes with the last of them', () => {
  const [first, second] = [meshGeometry(skin(1)), meshGeometry(skin(2))];
  expect(second.index).toBe(first.index);
  expect(second.getAttribute('position')).not.toBe(first.getAttribute('position'));
  expect(takenBy(releaseGeometry, first)).toEqual(['position', 'normal']);
  const third = meshGeometry(skin(3));
  expect(third.index).toBe(second.index);
  expect(takenBy(releaseGeometry, second)).toEqual(['position', 'normal']);
  expect(takenBy(releaseGeometry, third)).toEqual(['position', 'normal', 'index']);
});
