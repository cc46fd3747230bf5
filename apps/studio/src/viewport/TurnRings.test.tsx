/** @jest-environment ./scripts/dom.mjs */
import { fireEvent, screen } from '@testing-library/react';
import { Euler, Matrix4, Quaternion, Vector3 } from 'three';
import { newGrowth, newScene, newStep } from '@uvrex/core';
import { useResults } from '@/state/director/results';
import { openScene, useDocument } from '@/state/document/document';
import { pointerOn, renderThemed } from '@/ui/testing';
import { FalloffHandles } from './FalloffHandles';
import { toScreen, useProjection } from '../state/director/projection';
import { layOver, lookFromFront } from './testing';
import { metresOf } from './TurnRings';

type Spins = Record<'spinX' | 'spinY' | 'spinZ', number>;
const AXES = { spinX: [1, 0, 0], spinY: [0, 1, 0], spinZ: [0, 0, 1] } as const;
const PLACE = new Vector3(1, 0.5, 0);
const LABELS = { spinX: 'Off surface', spinY: 'Along itself', spinZ: 'Sideways' };

const about = (name: keyof Spins, degrees: number): Quaternion =>
  new Quaternion().setFromAxisAngle(new Vector3(...AXES[name]), (degrees * Math.PI) / 180);
/** A copy as the falloff turns it: about Z first, then X, then Y, and then as it was laid. */
const turned = (laid: Quaternion, { spinX, spinY, spinZ }: Spins): Quaternion =>
  laid.clone().multiply(about('spinY', spinY)).multiply(about('spinX', spinX)).multiply(about('spinZ', spinZ));

function Falloff() {
  const growth = useDocument((state) => state.scene.growths[0]);
  return <FalloffHandles growth={growth} step={growth.steps[0]} />;
}

function show(laid: Quaternion, spins: Spins): void {
  const growth = newGrowth('Reef', 0, [newStep('falloff', { shape: 'front', drives: 'turn', ...spins })]);
  openScene('reef', { ...newScene('Reef'), growths: [growth] });
  lookFromFront();
  const matrices = new Float32Array(16);
  new Matrix4().compose(PLACE, turned(laid, spins), new Vector3(2, 2, 2)).toArray(matrices);
  const copies = [{ item: 'leaf', matrices, ids: Uint32Array.of(0), tints: null }];
  useResults.setState({
    onScreen: [{ id: growth.id, hue: '#88aa66', key: 'key', shown: { copies } as never, items: new Map() }],
  });
  layOver(renderThemed(<Falloff />).container);
}

const ring = (name: keyof Spins): Element => screen.getByRole('button', { name: `${LABELS[name]} of the copies` });
const value = (name: keyof Spins): number => useDocument.getState().scene.growths[0].steps[0].params[name] as number;

/** Smallest and largest x and y of points. */
const extent = (points: readonly (readonly [number, number])[]): number[] =>
  [0, 1].flatMap((c) => [Math.min(...points.map((p) => p[c])), Math.max(...points.map((p) => p[c]))]);

const LAID = new Quaternion().setFromEuler(new Euler(0.4, -0.9, 0.3));

test.each(['spinX', 'spinY', 'spinZ'] as const)('the ring of %s lies round what the angle turns about', (name) => {
  const spins = { spinX: 35, spinY: -50, spinZ: 70 };
  show(LAID, spins);
  // The axis of the turn from one angle to the next, with no knowledge of how turns follow each other.
  const change = turned(LAID, { ...spins, [name]: spins[name] + 1 }).multiply(turned(LAID, spins).invert());
  const axis = new Vector3(change.x, change.y, change.z).normalize();
  const one = new Vector3(1, 0, 0).cross(axis).normalize();
  const two = axis.clone().cross(one);
  const radius = metresOf(58, [PLACE.x, PLACE.y, PLACE.z]);
  const wanted = Array.from({ length: 720 }, (_, i) => {
    const angle = (i * Math.PI) / 360;
    const at = PLACE.clone()
      .addScaledVector(one, radius * Math.cos(angle))
      .addScaledVector(two, radius * Math.sin(angle));
    const { x, y } = toScreen([at.x, at.y, at.z], useProjection.getState())!;
    return [x, y] as const;
  });
  const numbers = [
    ...ring(name)
      .getAttribute('d')!
      .matchAll(/(-?[\d.]+)[ ,](-?[\d.]+)/g),
  ];
  const drawn = numbers.map(([, x, y]) => [Number(x), Number(y)] as const);
  expect(drawn.length).toBeGreaterThan(60);
  extent(drawn).forEach((end, i) => expect(Math.abs(end - extent(wanted)[i])).toBeLessThan(0.6));
});

test.each([
  ['towards the eye', Math.PI / 2, 90],
  ['away from it', -Math.PI / 2, -90],
])('dragged a quarter round, the copy follows the pointer: its length %s', (_, tilt, by) => {
  show(new Quaternion().setFromEuler(new Euler(tilt, 0, 0)), { spinX: 0, spinY: 10, spinZ: 0 });
  const { x, y } = toScreen([PLACE.x, PLACE.y, PLACE.z], useProjection.getState())!;
  const pointer = pointerOn(ring('spinY'));
  pointer.down(x + 58, y);
  pointer.move(x, y - 58);
  pointer.up(x, y - 58);
  expect(value('spinY')).toBeCloseTo(10 + by, 4);
  expect([value('spinX'), value('spinZ')]).toEqual([0, 0]);
});

test('arrow keys turn by degrees, by more with Shift', () => {
  show(LAID, { spinX: 0, spinY: 0, spinZ: 0 });
  fireEvent.keyDown(ring('spinX'), { key: 'ArrowRight' });
  fireEvent.keyDown(ring('spinX'), { key: 'ArrowUp', shiftKey: true });
  expect(value('spinX')).toBe(16);
  fireEvent.keyDown(ring('spinZ'), { key: 'ArrowLeft' });
  expect([value('spinX'), value('spinY'), value('spinZ')]).toEqual([16, 0, -1]);
});
