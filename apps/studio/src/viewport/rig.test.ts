import { Mesh, type MeshStandardMaterial, Points, Raycaster, Vector3 } from 'three';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { newScene } from '@uvrex/core';
import type { OnScreen } from '@/state/director/results';
import { ballRound } from '@/worker/boundingSphere';
import type { Shown } from '@/worker/protocol';
import { type Picture, Rig } from './rig';

/** A square of two metres that stands at a depth and looks towards +Z, with a path up its middle. */
const sheet = (id: string, z = 0, more: Partial<Shown> = {}): OnScreen => ({
  id,
  hue: '#88aa66',
  key: `${id} ${z}`,
  items: new Map(),
  shown: {
    mesh: {
      positions: Float32Array.of(-1, 0, z, 1, 0, z, 1, 2, z, -1, 2, z),
      normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1),
      indices: Uint32Array.of(0, 1, 2, 0, 2, 3),
      colors: null,
      glow: null,
      uvs: null,
      ball: ballRound([-1, 0, z, 1, 2, z]),
    },
    copies: [],
    copiesBall: null,
    tips: null,
    dots: null,
    dotIds: null,
    paths: {
      positions: Float32Array.of(0, 0, z, 0, 1, z, 0, 2, z),
      offsets: Uint32Array.of(0, 3),
      closed: Uint8Array.of(0),
      fronts: Uint8Array.of(0),
      ids: Uint32Array.of(7),
      u: Float32Array.of(0, 0.5, 1),
    },
    surface: { roughness: 0.4, glowColor: [1, 0.5, 0.3], glowReach: 0, picture: null },
    ...more,
  } as Shown,
});

const scene = newScene('Lantern Reef');
const picture = (growths: readonly OnScreen[], more: Partial<Picture> = {}): Picture => ({
  scene,
  frame: 1,
  growths,
  look: 'finished',
  rendering: { quality: 'fine' },
  ...more,
});

/** What is drawn of growths, the surroundings left aside. */
const drawn = (rig: Rig): Mesh[] => {
  const found: Mesh[] = [];
  for (const group of rig.three.children.slice(1))
    group.traverseVisible((object) => void (object instanceof Mesh && found.push(object)));
  return found;
};

test('a growth keeps its object from frame to frame: only its geometry is another', () => {
  const rig = new Rig();
  rig.show(picture([sheet('a')]));
  const [object] = drawn(rig);
  const { geometry, material } = object;
  let gone = 0;
  geometry.addEventListener('dispose', () => gone++);
  rig.show(picture([sheet('a', 1)]));
  expect(drawn(rig)[0]).toBe(object);
  expect(object.material).toBe(material);
  expect(object.geometry.getAttribute('position').getZ(0)).toBe(1);
  expect(gone).toBe(1);
});

test('drafts and fine pictures take turns by the same two materials, over the same geometry', () => {
  const rig = new Rig();
  const growths = [sheet('a')];
  const seen = new Set<unknown>();
  const geometries = new Set<unknown>();
  for (const quality of ['fine', 'draft', 'fine', 'draft'] as const) {
    rig.show(picture(growths, { rendering: { quality } }));
    const [object] = drawn(rig);
    seen.add(object.material);
    geometries.add(object.geometry);
    expect(object.castShadow).toBe(quality === 'fine');
  }
  expect(seen.size).toBe(2);
  expect(geometries.size).toBe(1);
});

test('another surface is seen; growths that are gone are gone', () => {
  const rig = new Rig();
  rig.show(picture([sheet('a'), sheet('b')]));
  expect(drawn(rig)).toHaveLength(2);
  const matt = { roughness: 0.9, glowColor: [1, 1, 1] as [number, number, number], glowReach: 0, picture: null };
  rig.show(picture([sheet('b', 0, { surface: matt })]));
  expect(drawn(rig)).toHaveLength(1);
  expect((drawn(rig)[0].material as MeshStandardMaterial).roughness).toBe(0.9);
});

test('paths are lines, points are points, and beside what is alone all else is faint', () => {
  const rig = new Rig();
  rig.show(picture([sheet('a')], { look: 'paths' }));
  expect(drawn(rig)).toHaveLength(1);
  expect(drawn(rig)[0]).toBeInstanceOf(LineSegments2);
  rig.show(picture([sheet('a')], { look: 'points' }));
  let points = 0;
  rig.three.children[1].traverse((object) => void (object instanceof Points && points++));
  expect(points).toBe(1);
  rig.show(picture([sheet('a'), sheet('b')], { alone: ['b'] }));
  expect(drawn(rig).map(({ material }) => (material as MeshStandardMaterial).transparent)).toEqual([true, false]);
});

test('a line of sight meets the nearest skin, of what is no ghost, and tells its path', () => {
  const rig = new Rig();
  rig.show(picture([sheet('far', -1), sheet('near', 1)], { alone: ['far', 'near'] }));
  const ray = new Raycaster(new Vector3(0.2, 0.9, 5), new Vector3(0, 0, -1));
  const hit = rig.hit(ray)!;
  expect(hit.growth).toBe('near');
  hit.place.forEach((x, c) => expect(x).toBeCloseTo([0.2, 0.9, 1][c], 6));
  expect(hit.target).toEqual({ growth: 'near', of: 'path', path: 7, u: 0.5 });
  rig.show(picture([sheet('far', -1), sheet('near', 1)], { alone: ['far'] }));
  expect(rig.hit(ray)!.growth).toBe('far');
});

test('its ball holds all that is shown, ghosts left aside', () => {
  const rig = new Rig();
  rig.show(picture([sheet('a')], { ghosts: [{ growths: [sheet('a', 40)], when: 'after' }] }));
  const { center, radius } = rig.bounds;
  expect([center.x, center.y, center.z]).toEqual([0, 1, 0]);
  expect(radius).toBeCloseTo(Math.SQRT2, 6);
  expect(rig.boundsOf('a')!.radius).toBeCloseTo(Math.SQRT2, 6);
  expect(rig.boundsOf('b')).toBeNull();
});

test('what shines at its growing ends has a soft light about each of them', () => {
  const rig = new Rig();
  const tips = { positions: Float32Array.of(0, 2, 0), strengths: Float32Array.of(0.5) };
  const surface = {
    roughness: 0.4,
    glowColor: [1, 0.5, 0.3] as [number, number, number],
    glowReach: 0.2,
    picture: null,
  };
  const lights = () => {
    const found: Points[] = [];
    rig.three.traverse((object) => object instanceof Points && found.push(object));
    return found.filter(({ geometry }) => geometry.hasAttribute('strength'));
  };
  rig.show(picture([sheet('a', 0, { tips, surface })]));
  expect(lights().map(({ geometry }) => [...geometry.getAttribute('position').array])).toEqual([[0, 2, 0]]);
  rig.show(picture([sheet('b', 0, { surface })]));
  expect(lights()).toEqual([]);
});
