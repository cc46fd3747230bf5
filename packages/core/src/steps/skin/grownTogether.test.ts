import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { form, grows } from '../../../test/paths';
import { surfaceOf } from '../../../test/surfaces';

const skin = (params: Record<string, ParamValue> = {}): Step[] => [
  newStep('carry'),
  newStep('tube', { radius: 0.05, sides: 8, swell: 0, joints: 'grown', start: 'round', ...params }),
];

// Issue of branching: skins of trees are closed, with an Euler characteristic of 2 a tree, at every frame and whatever moves them.
test.each<[string, Step[]]>([
  ['growing', [newStep('grow', { to: grows(0, 1) })]],
  ['growing, all tips together', [newStep('grow', { to: grows(0, 1), branches: 'together' })]],
  [
    'growing and swaying',
    [newStep('grow', { to: grows(0, 1) }), newStep('noise', { amount: 0.3, evolve: grows(0, 2) })],
  ],
  ['twisted and bent', [newStep('twist', { turns: grows(0, 1) }), newStep('bend', { angle: grows(0, 120) })]],
  ['pruned', [newStep('prune', { by: 'length', shortest: grows(0, 0.6) })]],
])('a tree %s is one closed skin', async (_, steps) => {
  for (const frame of [4, 20, 47, 80, 101]) {
    const { mesh } = await form([newStep('colonise', { count: 160 }), ...steps, ...skin()], frame);
    expect(surfaceOf(mesh!)).toEqual({ open: 0, flipped: 0, euler: 2 });
  }
});

test.each([
  ['is eaten from its roots', { from: grows(0, 1), to: 1 }],
  ['grows in every branch by itself', { to: grows(0, 1), branches: 'each' }],
])('what %s is in closed pieces', async (_, params) => {
  let pieces = 0;
  for (const frame of [20, 47, 80]) {
    const steps = [newStep('colonise', { count: 160 }), newStep('grow', params), ...skin()];
    const { open, flipped, euler } = surfaceOf((await form(steps, frame)).mesh!);
    expect([open, flipped, euler % 2]).toEqual([0, 0, 0]);
    pieces = Math.max(pieces, euler / 2);
  }
  expect(pieces).toBeGreaterThan(1);
});

test('several trees are as many skins; a ring that carries branches is closed in itself', async () => {
  const { mesh, paths } = await form([newStep('burst', { count: 6, generations: 2 }), ...skin()]);
  const roots = [...paths!.parent!].filter((parent) => parent === 0xffffffff).length;
  expect(roots).toBeGreaterThan(3);
  expect(surfaceOf(mesh!)).toEqual({ open: 0, flipped: 0, euler: 2 * roots });
  const ring = await form([newStep('arc'), newStep('tube', { joints: 'grown' })]);
  expect(surfaceOf(ring.mesh!)).toEqual({ open: 0, flipped: 0, euler: 0 });
});

test('an open start is left open, once a tree', async () => {
  const { mesh } = await form([newStep('colonise', { count: 60 }), ...skin({ start: 'open' })]);
  expect(surfaceOf(mesh!)).toEqual({ open: 8, flipped: 0, euler: 1 });
});
