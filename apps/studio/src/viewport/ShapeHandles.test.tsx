/** @jest-environment ./scripts/dom.mjs */
import { fireEvent, screen } from '@testing-library/react';
import { newGrowth, newScene, newStep, type Vec3 } from '@uvrex/core';
import { openScene, useDocument } from '@/state/document/document';
import { pointerOn, renderThemed } from '@/ui/testing';
import { FalloffHandles } from './FalloffHandles';
import { toScreen, useProjection } from '../state/director/projection';
import { layOver, lookFromFront } from './testing';

/** The falloff of a growth that stands 2 m to the right, a quarter turned, at half its size. */
function Falloff() {
  const growth = useDocument((state) => state.scene.growths[0]);
  return <FalloffHandles growth={growth} step={growth.steps[0]} />;
}

const show = (params: Record<string, string | number>): void => {
  const growth = newGrowth('Reef', 0, [newStep('falloff', params)]);
  const place = { moveX: 2, turnZ: 90, scale: 0.5 };
  openScene('reef', { ...newScene('Reef'), growths: [{ ...growth, place }] });
  lookFromFront();
  layOver(renderThemed(<Falloff />).container);
};

const handle = (name: string): Element => screen.getByRole('button', { name: `${name} of the falloff` });
const placeOf = (name: string): number[] => ['cx', 'cy'].map((part) => Number(handle(name).getAttribute(part)));
const number = (name: string): number => useDocument.getState().scene.growths[0].steps[0].params[name] as number;
const onScreen = (place: Vec3): { x: number; y: number } => toScreen(place, useProjection.getState())!;

const drag = (name: string, to: Vec3): void => {
  const [x, y] = placeOf(name);
  const there = onScreen(to);
  const pointer = pointerOn(handle(name));
  pointer.down(x, y);
  pointer.move(there.x, there.y);
  pointer.up(there.x, there.y);
};

test('stand where the growth stands, and drag in its own space', () => {
  show({ shape: 'ball', atX: 0, atY: 0, atZ: 0, radius: 1 });
  const middle = onScreen([2, 0, 0]);
  expect(placeOf('Middle')[0]).toBeCloseTo(middle.x, 6);
  expect(placeOf('Middle')[1]).toBeCloseTo(middle.y, 6);
  // A quarter turn about Z takes X to Y: the radius of one metre along X stands half a metre above.
  const above = onScreen([2, 0.5, 0]);
  expect(placeOf('Radius')[0]).toBeCloseTo(above.x, 6);
  expect(placeOf('Radius')[1]).toBeCloseTo(above.y, 6);
  drag('Radius', [2, 1.5, 0]);
  expect(number('radius')).toBeCloseTo(3, 3);
  // What goes up in the scene is along X of the growth, and twice as far.
  drag('Middle', [2, 1, 0]);
  expect([number('atX'), number('atY'), number('atZ')].map((x) => Math.round(1000 * x) / 1000)).toEqual([2, 0, 0]);
});

test('each handle goes by its own keys: a radius grows, an arrow leans, a middle moves', () => {
  show({ shape: 'ball', atX: 0, atY: 0, atZ: 0, radius: 1 });
  fireEvent.keyDown(handle('Radius'), { key: 'ArrowRight' });
  fireEvent.keyDown(handle('Radius'), { key: 'PageUp', shiftKey: true });
  expect(number('radius')).toBeCloseTo(1.11, 9);
  expect(number('atX')).toBe(0);
  fireEvent.keyDown(handle('Middle'), { key: 'ArrowDown' });
  fireEvent.keyDown(handle('Middle'), { key: 'PageDown' });
  expect([number('atX'), number('atY'), number('atZ')]).toEqual([0, -0.01, 0.01]);
});

test('the arrow of a plane leans the way of the key, by the angle that its tip goes', () => {
  show({ shape: 'plane', atX: 0, atY: 0, atZ: 0, turnX: 0, turnY: 0, turnZ: 0 });
  fireEvent.keyDown(handle('Direction'), { key: 'ArrowRight', shiftKey: true });
  // The arrow is half a metre long, its tip went 0.1 m aside.
  expect(number('turnZ')).toBeCloseTo((-180 / Math.PI) * Math.atan(0.1 / 0.5), 3);
  expect(number('turnX')).toBeCloseTo(0, 9);
});
