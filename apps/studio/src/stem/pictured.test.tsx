/** @jest-environment ./scripts/dom.mjs */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { STEPS } from '@uvrex/core';
import { NumberField } from '@/ui/NumberField';
import { renderThemed } from '@/ui/testing';
import { controlHelp } from './pictured';

jest.mock('@uvrex/examples/small', () => ({ MOMENTS: 8, SMALL: { 'step-noise': '/noise.webp' } }));
jest.mock('@uvrex/examples/small/controls', () => ({ OWN_PICTURES: [], STEP_PICTURES: ['noise.amount'] }));

const field = (name: 'amount' | 'detail') => {
  const spec = STEPS.find(({ kind }) => kind === 'noise')!.params[name];
  if (spec.type !== 'number') throw new Error('not a number');
  renderThemed(<NumberField spec={spec} value={1} onChange={() => {}} help={controlHelp('noise', name, spec.help)} />);
  return spec;
};

test('the help of a control that moves something shows how, and says it', async () => {
  const { label, help } = field('amount');
  fireEvent.mouseOver(screen.getByText(label));
  await waitFor(() => expect(screen.getByRole('tooltip').textContent).toBe(help));
  const pictures = screen.getByRole('tooltip').querySelectorAll('[style*="noise.webp"]');
  expect(pictures).toHaveLength(1);
});

test('that of others says it', async () => {
  const { label, help } = field('detail');
  fireEvent.mouseOver(screen.getByText(label));
  await waitFor(() => expect(screen.getByRole('tooltip').textContent).toBe(help));
  expect(screen.getByRole('tooltip').querySelectorAll('[style*="webp"]')).toHaveLength(0);
});
