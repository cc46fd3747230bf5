/** @jest-environment ./scripts/dom.mjs */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { newGrowth, newScene, newStep } from '@uvrex/core';
import { openScene, travel, useDocument } from '@/state/document/document';
import { renderThemed } from '@/ui/testing';
import { FixButton } from './FixButton';

test('a click puts the number in the place of its keys, as one entry of undo', async () => {
  const keys = [{ frame: 1, value: 0, ease: 'linear' as const }];
  const step = newStep('phyllotaxis', { count: { keys, before: 'hold', after: 'hold' } });
  const growth = newGrowth('Head', 0, [step]);
  openScene('reef', { ...newScene('Lantern Reef'), growths: [growth] });
  renderThemed(<FixButton growth={growth.id} step={step.id} fix={{ label: 'Hold Count at 80', set: { count: 80 } }} />);
  const count = () => useDocument.getState().scene.growths[0].steps[0].params.count;
  await userEvent.click(screen.getByRole('button', { name: 'Hold Count at 80' }));
  expect(count()).toBe(80);
  expect(travel('undo')).toBe('Hold Count at 80');
  expect(count()).toMatchObject({ keys });
});
