/** @jest-environment ./scripts/dom.mjs */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { newGrowth, newScene, newStep, stepOf } from '@uvrex/core';
import { openScene } from '@/state/document/document';
import { renderThemed } from '@/ui/testing';
import { ParamFields } from './ParamFields';

test('a part names what all its fields are of once; in a folded one only those that differ are shown', async () => {
  const step = newStep('web', { hubY: 1.2 });
  const growth = newGrowth('Web', 0, [step]);
  openScene('reef', { ...newScene('Lantern Reef'), growths: [growth] });
  renderThemed(<ParamFields growth={growth} step={step} declaration={stepOf('web')!} />);
  expect(screen.getAllByText('Hub')).toHaveLength(1);
  expect(screen.getByRole('textbox', { name: 'Hub Y' })).toBeTruthy();
  expect(screen.queryByRole('textbox', { name: 'Hub X' })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: /^Hub/, expanded: false }));
  expect(screen.getByRole('textbox', { name: 'Hub X' })).toBeTruthy();
  expect(screen.getAllByText('Hub')).toHaveLength(1);
  // Groups outside of parts have their names over them.
  expect(screen.getByText('Middle')).toBeTruthy();
});
