/** @jest-environment ./scripts/dom.mjs */
import { act, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { NumberParam } from '@uvrex/core';
import { NumberField } from './NumberField';
import { pointerOn, renderThemed } from './testing';

const RADIUS: NumberParam = {
  type: 'number',
  label: 'Radius',
  help: 'Half of how thick it is.',
  unit: 'm',
  default: 0.5,
  min: 0.1,
  max: 10,
  slider: [0, 2],
};

/** What a field has told, and whether more was to come. */
let told: [value: number, live: boolean][] = [];

function Held({ spec = RADIUS, at = 0.5 }: { spec?: NumberParam; at?: number }) {
  const [value, setValue] = useState(at);
  return (
    <NumberField
      spec={spec}
      value={value}
      onChange={(next, live) => {
        told.push([next, live]);
        setValue(next);
      }}
    />
  );
}

const field = (name = 'Radius'): HTMLInputElement => screen.getByRole('textbox', { name });

beforeEach(() => {
  told = [];
});

test('a sum is worked out and taken once, by Enter or by leaving the field', async () => {
  const user = userEvent.setup();
  renderThemed(<Held />);
  await user.clear(field());
  await user.type(field(), '2 * 0.7{Enter}');
  expect(told).toEqual([[1.4, false]]);
  expect(field().value).toBe('1.4');
  await user.clear(field());
  await user.type(field(), '0,25 m');
  await user.tab();
  expect(told.slice(1)).toEqual([[0.25, false]]);
  // What is there already is no change.
  await user.click(field());
  await user.tab();
  expect(told).toHaveLength(2);
});

test('what is refused stays to be mended, is explained beside the field, and changes nothing', async () => {
  const user = userEvent.setup();
  renderThemed(<Held />);
  for (const [typed, why] of [
    ['11', /^Radius .*10/],
    ['reef', /^Radius /],
  ] as const) {
    await user.clear(field());
    await user.type(field(), `${typed}{Enter}`);
    expect(screen.getByRole('alert').textContent).toMatch(why);
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(field().getAttribute('aria-describedby')!)).toBe(screen.getByRole('alert'));
    expect(field().value).toBe(typed);
  }
  expect(told).toEqual([]);
  await user.clear(field());
  expect(screen.queryByRole('alert')).toBeNull();
  await user.type(field(), '9{Enter}');
  expect(told).toEqual([[9, false]]);
});

test('Escape drops what was typed, and leaves the field', async () => {
  const user = userEvent.setup();
  renderThemed(<Held />);
  await user.clear(field());
  await user.type(field(), '3{Escape}');
  expect(told).toEqual([]);
  expect(field().value).toBe('0.5');
  expect(document.activeElement).not.toBe(field());
});

test('arrow keys step by a hundredth of the reach, with Shift by a thousandth, and never out of what is allowed', async () => {
  const user = userEvent.setup();
  renderThemed(<Held at={0.12} />);
  await user.click(field());
  await user.keyboard('{ArrowUp}');
  await user.keyboard('{Shift>}{ArrowUp}{/Shift}');
  expect(told).toEqual([
    [0.14, false],
    [0.142, false],
  ]);
  await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{ArrowDown}');
  expect(told.at(-1)).toEqual([0.1, false]);
});

test('whole numbers go by one', async () => {
  const user = userEvent.setup();
  renderThemed(<Held spec={{ ...RADIUS, label: 'Sides', unit: 'count', min: 3, max: 64, whole: true }} at={8} />);
  await user.click(field('Sides'));
  await user.keyboard('{ArrowUp}');
  expect(told).toEqual([[9, false]]);
});

test('the wheel steps it while it has the focus, the panel stays, and all of a turn ends once', () => {
  jest.useFakeTimers();
  renderThemed(<Held />);
  // fireEvent tells whether the page would scroll.
  expect(fireEvent.wheel(field(), { deltaY: -100 })).toBe(true);
  expect(told).toEqual([]);
  act(() => field().focus());
  expect(fireEvent.wheel(field(), { deltaY: -100 })).toBe(false);
  fireEvent.wheel(field(), { deltaY: -100 });
  fireEvent.wheel(field(), { deltaX: 100, shiftKey: true });
  expect(told).toEqual([
    [0.52, true],
    [0.54, true],
    [0.538, true],
  ]);
  act(() => {
    jest.advanceTimersByTime(1000);
  });
  expect(told.slice(3)).toEqual([[0.538, false]]);
  jest.useRealTimers();
});

const linked = (formula: string | null, refuses: string | null = null): string[] => {
  const asked: string[] = [];
  renderThemed(
    <NumberField
      spec={RADIUS}
      value={0.8}
      onChange={(value, live) => told.push([value, live])}
      formula={formula}
      onFormula={(text) => {
        asked.push(String(text));
        return refuses;
      }}
    />,
  );
  return asked;
};

test('a formula stands in the field with what it comes to; arrows leave it alone, a number takes its place', async () => {
  const user = userEvent.setup();
  linked('frame / 10');
  expect(field().value).toBe('= frame / 10');
  expect(screen.getByText(/is now 0.8 m/)).toBeTruthy();
  expect(screen.queryByRole('slider')).toBeNull();
  await user.click(field());
  await user.keyboard('{ArrowUp}');
  expect(told).toEqual([]);
  await user.clear(field());
  await user.type(field(), '2{Enter}');
  expect(told).toEqual([[2, false]]);
});

test('what stands behind an equals sign is handed on as a formula, and told where it is refused', async () => {
  const user = userEvent.setup();
  const asked = linked(null, 'it would refer to itself');
  await user.clear(field());
  await user.type(field(), '=  Radius / 2{Enter}');
  expect(asked).toEqual(['Radius / 2']);
  expect(screen.getByRole('alert').textContent).toBe('Radius is not linked: it would refer to itself.');
  expect(told).toEqual([]);
});

describe('its label', () => {
  const drag = (label: HTMLElement, ...xs: number[]): void => {
    pointerOn(label).down(100, 5);
    for (const x of xs) pointerOn(label).move(x, 5);
  };

  test('is dragged: live all the way, taken where it is let go, and the click that ends it goes nowhere', () => {
    renderThemed(<Held />);
    const label = screen.getByText('Radius');
    drag(label, 125, 150);
    expect(told).toEqual([
      [0.7, true],
      [0.9, true],
    ]);
    pointerOn(label).up(150, 5);
    expect(told.slice(2)).toEqual([[0.9, false]]);
    expect(fireEvent.click(label)).toBe(false);
  });

  test('that is taken from the hand keeps what it has come to', () => {
    renderThemed(<Held />);
    const label = screen.getByText('Radius');
    drag(label, 75);
    pointerOn(label).cancel();
    expect(told).toEqual([
      [0.3, true],
      [0.3, false],
    ]);
    pointerOn(label).move(300, 5);
    expect(told).toHaveLength(2);
  });

  test('that is only clicked leads into the field', () => {
    renderThemed(<Held />);
    const label = screen.getByText('Radius');
    drag(label);
    pointerOn(label).up(100, 5);
    expect(told).toEqual([]);
    expect(fireEvent.click(label)).toBe(true);
  });

  test('gathers the labels of the same unit that it passes, before it goes sideways', () => {
    const named: Record<string, number> = {};
    const column = ['Below', 'Turn', 'Above'].map((label, i): NumberParam => {
      const unit = label === 'Turn' ? 'deg' : 'm';
      return { ...RADIUS, label, unit, slider: [0, i === 2 ? 1 : 2] };
    });
    renderThemed(
      column.map((spec) => (
        <NumberField key={spec.label} spec={spec} value={0.5} onChange={(value) => (named[spec.label] = value)} />
      )),
    );
    const labels = column.map(({ label }) => screen.getByText(label));
    labels.forEach((label, i) => {
      label.getBoundingClientRect = () => ({ left: 8, top: 30 * i, bottom: 30 * i + 20 }) as DOMRect;
    });
    pointerOn(labels[0]).down(100, 10);
    pointerOn(labels[0]).move(101, 70);
    expect(named).toEqual({});
    pointerOn(labels[0]).move(125, 70);
    pointerOn(labels[0]).up(125, 70);
    // Each by as much of its own reach; what is an angle stays.
    expect(named).toEqual({ Below: 0.7, Above: 0.6 });
  });
});
