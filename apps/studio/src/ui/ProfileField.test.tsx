/** @jest-environment ./scripts/dom.mjs */
import { act, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { ProfileParam, ProfilePoint } from '@uvrex/core';
import { ProfileField } from './ProfileField';
import { pointerOn, renderThemed } from './testing';

const SPEC: ProfileParam = { type: 'profile', label: 'Along', help: 'From base to tip.', min: 0, max: 2, default: [] };

let told: [points: ProfilePoint[], live: boolean][] = [];
beforeEach(() => void (told = []));

function Held({ points }: { points: ProfilePoint[] }) {
  const [value, setValue] = useState(points);
  return (
    <ProfileField
      spec={SPEC}
      value={value}
      accent="#c9e86a"
      onChange={(next, live) => {
        told.push([next, live]);
        setValue(next);
      }}
    />
  );
}

const show = (...points: ProfilePoint[]): void => {
  renderThemed(<Held points={points} />);
  screen.getByRole('group', { name: 'Along profile' }).getBoundingClientRect = () =>
    ({ left: 0, top: 0, width: 100, height: 50 }) as DOMRect;
};
const point = (k: number): HTMLElement => screen.getByRole('button', { name: new RegExp(`^Along, point ${k} of`) });

test('a point goes by the arrow keys, a hundredth along or of the reach, without dust and within what is allowed', async () => {
  const user = userEvent.setup();
  show({ at: 0.06, value: 1.99 }, { at: 1, value: 0 });
  act(() => point(1).focus());
  await user.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
  expect(told.map(([points]) => points[0].at)).toEqual([0.07, 0.08, 0.07]);
  await user.keyboard('{ArrowUp}');
  expect(told.at(-1)![0][0].value).toBe(2);
  await user.keyboard('{ArrowDown}');
  expect(told.at(-1)![0][0].value).toBe(1.98);
});

test('a double click adds a point under it; what is only clicked changes nothing; a drag is taken once', () => {
  show({ at: 0, value: 1 }, { at: 1, value: 1 });
  fireEvent.doubleClick(screen.getByRole('group', { name: 'Along profile' }), { clientX: 25, clientY: 10 });
  expect(told).toEqual([
    [
      [
        { at: 0, value: 1 },
        { at: 1, value: 1 },
        { at: 0.25, value: 1.6 },
      ],
      false,
    ],
  ]);
  pointerOn(point(3)).down(25, 10);
  pointerOn(point(3)).up(25, 10);
  expect(told).toHaveLength(1);
  pointerOn(point(3)).down(25, 10);
  pointerOn(point(3)).move(50, 90);
  pointerOn(point(3)).cancel();
  expect(told.slice(1).map(([points, live]) => [points[2], live])).toEqual([
    [{ at: 0.5, value: 0 }, true],
    [{ at: 0.5, value: 0 }, false],
  ]);
});

test('Delete takes a point away, but never the last', async () => {
  const user = userEvent.setup();
  show({ at: 0, value: 1 }, { at: 1, value: 0.5 });
  act(() => point(1).focus());
  await user.keyboard('{Delete}');
  expect(told.at(-1)![0]).toEqual([{ at: 1, value: 0.5 }]);
  act(() => point(1).focus());
  await user.keyboard('{Backspace}');
  expect(told).toHaveLength(1);
});
