import { newGrowth, newStep } from '@uvrex/core';
import { attributeLabel, attributeNames } from '@/state/document/attributeNames';

test('a step can go by what the steps before it write, its own growth and those that it refers to', () => {
  const rock = {
    ...newGrowth('Rock', 0, [newStep('form'), newStep('measure', { name: 'bare' }), newStep('front')]),
    id: 'rock',
  };
  const wire = { ...newGrowth('Wire', 1, [newStep('cells', { growth: 'rock' }), newStep('reveal')]), id: 'wire' };
  const growths = [rock, wire];
  expect(attributeNames(growths, 'rock', rock.steps[2].id)).toEqual(['height', 'bare']);
  expect(attributeNames(growths, 'wire', wire.steps[1].id).sort()).toEqual([
    'bare',
    'distance',
    'front',
    'height',
    'tip',
  ]);
  const off = { ...rock, steps: rock.steps.map((step) => ({ ...step, on: step.kind !== 'measure' })) };
  expect(attributeNames([off, wire], 'rock', rock.steps[2].id)).toEqual(['height']);
  expect([attributeLabel('tip'), attributeLabel('bare')]).toEqual(['Behind the front', 'bare']);
});
