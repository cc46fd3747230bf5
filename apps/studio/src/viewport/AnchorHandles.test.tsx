/** @jest-environment ./scripts/dom.mjs */
import { act, screen } from '@testing-library/react';
import { type Anchor, newGrowth, newScene, newStep } from '@uvrex/core';
import { openScene, useDocument } from '@/state/document/document';
import { setParam } from '@/state/actions/valueActions';
import { pointerOn, renderThemed } from '@/ui/testing';
import { AnchorHandles } from './AnchorHandles';
import { layOver, lookFromFront } from './testing';

const PATH: Anchor[] = [
  [0, -1, 0],
  [0, 0, 0],
  [0, 1, 0],
];

function Drawn() {
  const growth = useDocument((state) => state.scene.growths[0]);
  return <AnchorHandles growth={growth} step={growth.steps[0]} />;
}

const anchors = (): Anchor[] => useDocument.getState().scene.growths[0].steps[0].params.anchors as Anchor[];
const anchor = (name: string): Element => screen.getByRole('button', { name });

beforeEach(() => {
  const growth = newGrowth('Kelp', 0, [newStep('drawn', { anchors: PATH })]);
  openScene('reef', { ...newScene('Lantern Reef'), growths: [growth] });
  lookFromFront();
  layOver(renderThemed(<Drawn />).container);
});

test('an anchor goes with the pointer in the plane that faces the camera; its neighbours stay', () => {
  const pointer = pointerOn(anchor('Anchor 2 of 3'));
  pointer.down(400, 300);
  pointer.move(500, 300);
  pointer.up(500, 300);
  // 12 m away the picture is 24 tan 20° high, over 600 pixels.
  expect(anchors()[1][0]).toBeCloseTo((100 * 24 * Math.tan(Math.PI / 9)) / 600, 3);
  expect(anchors()[1].slice(1)).toEqual([0, 0]);
  expect([anchors()[0], anchors()[2]]).toEqual([PATH[0], PATH[2]]);
});

test('one that is deleted while it is held is gone, and drags no other', () => {
  const { id, steps } = useDocument.getState().scene.growths[0];
  const pointer = pointerOn(anchor('Anchor 3 of 3'));
  pointer.down(400, 200);
  act(() => setParam(id, steps[0].id, 'anchors', PATH.slice(0, 2)));
  expect(() => pointerOn(anchor('Anchor 2 of 2')).move(500, 300)).not.toThrow();
  expect(anchors()).toEqual(PATH.slice(0, 2));
});
