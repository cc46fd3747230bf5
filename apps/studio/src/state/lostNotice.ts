import type { Notice, Scene } from '@uvrex/core';
import { EngineLost } from '@/worker/engine';
import { growthIn, stepIn } from './document';

/** What is told where the engine did not answer: which step it was in, and what to do. */
export function lostNotice(scene: Scene, error: unknown): Notice {
  if (!(error instanceof EngineLost) || error.dead)
    return {
      level: 'error',
      what: error instanceof EngineLost ? error.message : `The engine could not answer: ${String(error)}.`,
      advice: 'The scene is kept. Load the page again; where that does not help, close other tabs.',
      place: {},
    };
  const { stage } = error;
  const growth = stage && growthIn(scene, stage.growth);
  const step = stage && stepIn(scene, stage.growth, stage.step);
  const where = growth && step ? ` in step ${step.name || step.kind} of “${growth.name}”` : '';
  return {
    level: 'error',
    what: `The engine stopped${where} and was started again.`,
    advice: "The last good picture stays. Lower that step's numbers or switch it off, then go on.",
    place: stage ?? {},
  };
}
