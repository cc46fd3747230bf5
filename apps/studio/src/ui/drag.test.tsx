/** @jest-environment ./scripts/dom.mjs */
import { fireEvent, screen } from '@testing-library/react';
import { newScene } from '@uvrex/core';
import { edit, openScene, travel, useDocument } from '@/state/document/document';
import { type Ending, type Hold, useDrag } from './drag';
import { pointerOn, renderThemed } from './testing';

// What ends a drag, and how: Pointer Events, W3C Recommendation, sections on capture and on pointercancel.

let told: [string, number, number][] = [];
let ends: [string, Ending][] = [];
let clicks: string[] = [];

const frames = (): number => useDocument.getState().scene.range[1];

interface Props {
  clicked?: boolean;
  take?: () => true | null;
  /** Whether the first of them is there. */
  there?: boolean;
}

/** Two things in a drawing that begins at 100, 40 of the window. */
function Things({ clicked = false, take, there = true }: Props) {
  const drag = useDrag<string>({
    take,
    move(which: string, hold: Hold) {
      told.push([which, hold.at.x, hold.by.x]);
      edit('Longer', (scene) => void (scene.range = [1, 48 + Math.abs(hold.by.x)]), { merge: 'drag' });
    },
    click: clicked ? (which) => clicks.push(which) : undefined,
    end: (which, _, ending) => ends.push([which, ending]),
  });
  return (
    <svg
      ref={(svg) => {
        if (svg) svg.getBoundingClientRect = () => ({ left: 100, top: 40 }) as DOMRect;
      }}
    >
      {there && <rect data-testid="polyp" tabIndex={0} {...drag('polyp')} />}
      <rect data-testid="frond" {...drag('frond')} />
    </svg>
  );
}

const thing = (name = 'polyp'): HTMLElement => screen.getByTestId(name);
/** Presses, moves and lets go at places along it. */
const down = (x: number, more: object = {}, of = thing()): void => pointerOn(of).down(x, 50, more);
const move = (x: number, of = thing()): void => pointerOn(of).move(x, 50);
const up = (x: number, of = thing()): void => pointerOn(of).up(x, 50);

beforeEach(() => {
  [told, ends, clicks] = [[], [], []];
  const scene = newScene('Reef');
  openScene('reef', { ...scene, range: [1, 48] });
});

test('tells where the pointer is in the drawing and how far it has come, and is one entry of undo', () => {
  renderThemed(<Things />);
  down(150);
  expect(document.activeElement).toBe(thing());
  move(160);
  move(170);
  up(170);
  move(300);
  expect(told).toEqual([
    ['polyp', 60, 10],
    ['polyp', 70, 20],
  ]);
  expect(ends).toEqual([['polyp', 'let go']]);
  down(150, {}, thing('frond'));
  move(155, thing('frond'));
  up(155, thing('frond'));
  expect(told.at(-1)).toEqual(['frond', 55, 5]);
  expect(frames()).toBe(53);
  travel('undo');
  expect(frames()).toBe(68);
  travel('undo');
  expect(frames()).toBe(48);
});

test('Escape puts the scene and its history back, and the rest of the drag does nothing', () => {
  renderThemed(<Things />);
  edit('Longer', (scene) => void (scene.range = [1, 60]), { merge: 'drag' });
  const before = useDocument.getState();
  down(150);
  move(190);
  expect(frames()).toBe(88);
  const heard = jest.fn();
  window.addEventListener('keydown', heard);
  fireEvent.keyDown(document.body, { key: 'Escape' });
  expect(useDocument.getState().scene).toBe(before.scene);
  expect(useDocument.getState().history).toBe(before.history);
  // It has done its work: nothing else is left by it.
  expect(heard).not.toHaveBeenCalled();
  move(250);
  up(250);
  expect(frames()).toBe(60);
  expect(ends).toEqual([['polyp', 'taken back']]);
  fireEvent.keyDown(document.body, { key: 'Escape' });
  expect(heard).toHaveBeenCalledTimes(1);
  window.removeEventListener('keydown', heard);
});

test('what is taken back says nothing of a scene that was opened meanwhile', () => {
  renderThemed(<Things />);
  down(150);
  move(190);
  openScene('wreck', { ...newScene('Wreck'), range: [1, 30] });
  fireEvent.keyDown(document.body, { key: 'Escape' });
  expect(useDocument.getState().id).toBe('wreck');
  expect(frames()).toBe(30);
});

test('ends where the pointer is taken away or the thing is, and keeps what it has come to', () => {
  const { unmount } = renderThemed(<Things />);
  down(150);
  move(160);
  pointerOn(thing()).cancel();
  move(200);
  expect(frames()).toBe(58);
  down(150);
  move(165);
  unmount();
  expect(frames()).toBe(63);
  expect(ends).toEqual([
    ['polyp', 'lost'],
    ['polyp', 'lost'],
  ]);
});

test('one that goes away alone is let go of with the button, wherever that is', () => {
  jest.useFakeTimers();
  const { rerender } = renderThemed(<Things />);
  down(150);
  move(160);
  rerender(<Things there={false} />);
  expect(ends).toEqual([]);
  pointerOn(document.body).up(500);
  jest.runAllTimers();
  expect(ends).toEqual([['polyp', 'lost']]);
  // Nothing of it is left that Escape would take back.
  fireEvent.keyDown(document.body, { key: 'Escape' });
  expect(frames()).toBe(58);
  expect(ends).toHaveLength(1);
  jest.useRealTimers();
});

test('where a click means something too, a hand that trembles clicks, and one that goes does not', () => {
  renderThemed(<Things clicked />);
  down(150);
  move(152);
  up(152);
  expect([told, clicks]).toEqual([[], ['polyp']]);
  down(150);
  move(158);
  move(151);
  up(151);
  expect([told.length, clicks]).toEqual([2, ['polyp']]);
  // Taken from the hand, it was no click.
  down(150);
  pointerOn(thing()).cancel();
  expect(clicks).toEqual(['polyp']);
});

test('other buttons, a second finger and what is not taken drag nothing', () => {
  const { unmount } = renderThemed(<Things />);
  down(150, { buttons: 2, button: 2 });
  move(180);
  up(180);
  expect([told, ends]).toEqual([[], []]);
  down(150);
  pointerOn(thing()).move(400, 50, { pointerId: 2 });
  expect(told).toEqual([]);
  up(150);
  unmount();
  renderThemed(<Things take={() => null} />);
  ends = [];
  down(150);
  move(180);
  up(180);
  expect([told, ends]).toEqual([[], []]);
});

test('what is taken is no press on what it lies in', () => {
  const pressed = jest.fn();
  renderThemed(
    <div onPointerDown={pressed}>
      <Things />
    </div>,
  );
  down(150);
  up(150);
  expect(pressed).not.toHaveBeenCalled();
});
