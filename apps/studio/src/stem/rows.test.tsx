/** @jest-environment ./scripts/dom.mjs */
import { act } from '@testing-library/react';
import { Profiler, type ReactNode } from 'react';
import { growingSteps, newGrowth, newScene, newStep } from '@uvrex/core';
import { changeGrowth } from '@/state/actions/growthActions';
import { setParam } from '@/state/actions/valueActions';
import { openScene } from '@/state/document/document';
import { renderThemed } from '@/ui/testing';
import { GrowthRow } from './GrowthRow';
import { StepRow } from './StepRow';

/** Counts how often what is in it is drawn. */
function counted() {
  const drawn: string[] = [];
  const Counted = ({ name, children }: { name: string; children: ReactNode }) => (
    <Profiler id={name} onRender={() => drawn.push(name)}>
      {children}
    </Profiler>
  );
  return { Counted, drawn };
}

const scene = newScene('Lantern Reef');
const stem = newGrowth('Stem', 0, growingSteps(newStep('line'), scene.range));
const other = newGrowth('Other', 1, growingSteps(newStep('line'), scene.range));
const [line, grow] = stem.steps;
const NONE: [] = [];
const choose = (): void => {};

beforeEach(() => openScene('reef', { ...scene, growths: [stem, other] }));

test('a dragged number draws its own summary anew, and no other row of steps or growths', () => {
  const { Counted, drawn } = counted();
  const { getByRole } = renderThemed(
    <>
      {[line, grow].map(({ id, kind }) => (
        <Counted key={id} name={kind}>
          <StepRow growth={stem.id} hue={stem.hue} step={id} notices={NONE} />
        </Counted>
      ))}
      {[stem, other].map(({ id, name }) => (
        <Counted key={id} name={name}>
          <GrowthRow growth={id} inGroup={false} shown choose={choose} />
        </Counted>
      ))}
    </>,
  );
  drawn.length = 0;
  const before = getByRole('group', { name: 'Line' }).textContent;
  act(() => setParam(stem.id, line.id, 'toY', 2.75));
  expect(getByRole('group', { name: 'Line' }).textContent).not.toBe(before);
  expect(drawn).toEqual(['line']);
});

test('a row of the list follows the name, the hiding and the lock of its growth', () => {
  const { getByRole, queryByRole } = renderThemed(<GrowthRow growth={stem.id} inGroup={false} shown choose={choose} />);
  act(() => changeGrowth(stem.id, 'Rename growth', { name: 'Eelgrass' }));
  expect(getByRole('button', { name: 'Eelgrass' })).toBeTruthy();
  expect(queryByRole('button', { name: 'Unlock Eelgrass' })).toBeNull();
  act(() => changeGrowth(stem.id, 'Lock growth', { locked: true, visible: false }));
  expect(getByRole('button', { name: 'Unlock Eelgrass' })).toBeTruthy();
  expect(getByRole('button', { name: 'Show Eelgrass' })).toBeTruthy();
});
