import type { Notice, Scene } from '@uvrex/core';
import { EngineLost } from '@/worker/engine';
import { growthIn, stepIn } from '../document/document';

/**
 * What is told where the engine did not answer: which step it was in, and what to do.
 * @param again whether the frame is tried once more by itself
 */
export function lostNotice(scene: Scene, error: unknown, again = false): Notice {
  if (!(error instanceof EngineLost) || error.dead)
    return {
      level: 'error',
      what: error instanceof EngineLost ? error.message : 'The engine could not answer.',
      advice: 'The scene is kept. Load the page again; where that does not help, close other tabs.',
      place: {},
    };
  const { stage } = error;
  const growth = stage && growthIn(scene, stage.growth);
  const step = stage && stepIn(scene, stage.growth, stage.step);
  const where = growth && step ? ` in step ${step.name || step.kind} of “${growth.name}”` : '';
  // A number is to blame only where a step was seen to run too long.
  const slow = error.silence !== null && where !== '';
  const what = slow
    ? `The engine gave no answer for ${Math.round(error.silence! / 1000)} s${where}, and was started again.`
    : `The engine stopped${where} and was started again.`;
  const next = again ? 'This frame is tried once more.' : 'Change a value or the frame to try again.';
  return {
    level: 'error',
    what,
    advice: `The last good picture stays. ${slow ? "Lower that step's numbers, or switch it off." : next}`,
    place: stage ?? {},
  };
}
