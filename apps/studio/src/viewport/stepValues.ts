import {
  baseOf,
  type Growth,
  GrowthValues,
  isFormula,
  isVaried,
  type Resolved,
  type Step,
  stepOf,
  type StepDeclaration,
} from '@uvrex/core';
import { ownFrame } from '@/state/actions/valueActions';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';

/** What a step's numbers are at the playhead; null where a formula fails, which is told at its field. */
export function useStepValues(growth: Growth, step: Step): { declaration: StepDeclaration; values: Resolved } | null {
  const frame = useView((state) => state.frame);
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  const declaration = stepOf(step.kind)!;
  try {
    return {
      declaration,
      values: new GrowthValues(growth, { fps, range }, ownFrame(growth, frame)).of(declaration, step),
    };
  } catch {
    return null;
  }
}

/** Whether a number can be dragged: what a formula or a variation says is not. */
export const isFree = (step: Step, name: string): boolean =>
  !isVaried(step.params[name]) && !isFormula(baseOf(step.params[name]));
