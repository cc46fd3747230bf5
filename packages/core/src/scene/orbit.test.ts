import type { Track } from '../time/track';
import { lookAt } from './look';
import { newScene } from './make';

const track = (...values: number[]): Track => ({
  keys: values.map((value, i) => ({ frame: 1 + 24 * i, value, ease: 'linear' })),
  before: 'hold',
  after: 'hold',
});

/** A camera a quarter turn about a target at height 1, 3 m away, then twice as far. */
function turning(travel: string) {
  const scene = newScene('Reef');
  Object.assign(scene.camera, {
    ...{ travel, targetX: 0, targetY: 1, targetZ: 0 },
    ...{ positionX: track(0, 3, 6), positionY: track(1, 1, 1), positionZ: track(3, 0, 0) },
  });
  return scene;
}

test('round the target a camera keeps its distance and turns evenly; straight it cuts the corner', () => {
  for (const frame of [1, 7, 13, 19, 25]) {
    const [x, y, z] = lookAt(turning('orbit'), frame).camera.position;
    const angle = ((frame - 1) / 24) * (Math.PI / 2);
    // The circle in closed form.
    expect(x).toBeCloseTo(3 * Math.sin(angle), 9);
    expect(y).toBeCloseTo(1, 9);
    expect(z).toBeCloseTo(3 * Math.cos(angle), 9);
  }
  const [x, , z] = lookAt(turning('straight'), 13).camera.position;
  expect([x, z]).toEqual([1.5, 1.5]);
});

test('the distance grows by the same factor in the same time; outside the keys the last one holds', () => {
  expect(lookAt(turning('orbit'), 37).camera.position[0]).toBeCloseTo(3 * Math.SQRT2, 9);
  expect(lookAt(turning('orbit'), 90).camera.position).toEqual([6, 1, 0]);
});

test('it goes the shorter way over the back, and follows a target that moves', () => {
  const scene = newScene('Reef');
  const [from, to] = [170, 190].map((degrees) => (degrees * Math.PI) / 180);
  Object.assign(scene.camera, {
    ...{ travel: 'orbit', targetX: track(0, 10), targetY: 0, targetZ: 0 },
    positionX: track(2 * Math.sin(from), 10 + 2 * Math.sin(to)),
    ...{ positionY: track(0, 0), positionZ: track(2 * Math.cos(from), 2 * Math.cos(to)) },
  });
  const { position, target } = lookAt(scene, 13).camera;
  expect(target[0]).toBeCloseTo(5, 9);
  expect(position[0]).toBeCloseTo(5, 9);
  expect(position[2]).toBeCloseTo(-2, 9);
});
