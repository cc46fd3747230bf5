/** @jest-environment ./scripts/dom.mjs */
import { act, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { Stop } from '@uvrex/core';
import { GradientField } from './GradientField';
import { pointerOn, renderThemed } from './testing';

let told: [stops: Stop[], live: boolean][] = [];
beforeEach(() => void (told = []));

function Held({ stops }: { stops: Stop[] }) {
  const [value, setValue] = useState(stops);
  return (
    <GradientField
      label="Colour"
      help="Along the path."
      value={value}
      onChange={(next, live) => {
        told.push([next, live]);
        setValue(next);
      }}
    />
  );
}

const [DEEP, LIGHT, PALE] = ['#102030', '#c9e86a', '#f0f0e0'];
const show = (...stops: Stop[]): void => {
  renderThemed(<Held stops={stops} />);
  screen.getByRole('group', { name: 'Colour stops' }).getBoundingClientRect = () =>
    ({ left: 100, width: 200, right: 300 }) as DOMRect;
};
const stop = (k: number, of: number): HTMLElement => screen.getByRole('slider', { name: `Colour, stop ${k} of ${of}` });

test('a stop goes along by the arrow keys, without dust, and not beyond the ends', async () => {
  const user = userEvent.setup();
  show({ at: 0.06, color: DEEP }, { at: 0.995, color: LIGHT });
  act(() => stop(1, 2).focus());
  await user.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
  expect(told.map(([stops]) => stops[0].at)).toEqual([0.07, 0.08, 0.07]);
  act(() => stop(2, 2).focus());
  await user.keyboard('{ArrowRight}');
  expect(told.at(-1)).toEqual([
    [
      { at: 0.07, color: DEEP },
      { at: 1, color: LIGHT },
    ],
    false,
  ]);
  expect(stop(2, 2).getAttribute('aria-valuenow')).toBe('100');
});

test('a double click puts one where it is, of the colour that is nearest; Delete takes it away, but never the last', async () => {
  const user = userEvent.setup();
  show({ at: 0, color: DEEP }, { at: 1, color: PALE });
  fireEvent.doubleClick(screen.getByRole('group', { name: 'Colour stops' }), { clientX: 250 });
  expect(told[0][0][2]).toEqual({ at: 0.75, color: PALE });
  act(() => stop(3, 3).focus());
  await user.keyboard('{Delete}');
  act(() => stop(2, 2).focus());
  await user.keyboard('{Backspace}');
  expect(told.at(-1)![0]).toEqual([{ at: 0, color: DEEP }]);
  const before = told.length;
  act(() => stop(1, 1).focus());
  await user.keyboard('{Delete}');
  expect(told).toHaveLength(before);
});

test('a stop that is dragged goes along live, and is taken once; one that is only clicked is chosen, and changes nothing', () => {
  show({ at: 0, color: DEEP }, { at: 1, color: PALE });
  pointerOn(stop(1, 2)).down(100);
  pointerOn(stop(1, 2)).up(100);
  expect(told).toEqual([]);
  pointerOn(stop(2, 2)).down(300);
  pointerOn(stop(2, 2)).move(200);
  pointerOn(stop(2, 2)).move(20);
  pointerOn(stop(2, 2)).up(20);
  expect(told.map(([stops, live]) => [stops[1].at, live])).toEqual([
    [0.5, true],
    [0, true],
    [0, false],
  ]);
});
