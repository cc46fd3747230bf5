import { addStartedGrowth, changeGrowth } from '@/state/actions/growthActions';
import { addStep, deleteStep } from '@/state/actions/stepActions';
import { takePreset } from '@/state/actions/valueActions';
import { edit, growthIn, useDocument } from '@/state/document/document';
import { select, setView } from '@/state/document/view';
import { called, isDone, kindOf, type Move, resolveMoves } from './lesson';

/** Does what is not done yet of a lesson's step, by the same actions that hands would call. */
export function playMoves(moves: readonly Move[]): void {
  for (const move of moves) if (!isDone(useDocument.getState().scene, move)) perform(move);
}

function perform(move: Move): void {
  const { scene } = useDocument.getState();
  if ('play' in move) return setView({ playing: true });
  if ('last' in move) return void edit('Change the range', (draft) => void (draft.range = [draft.range[0], move.last]));
  if ('begin' in move) {
    const given = Object.entries(move.with ?? {}).map(([name, value]) => [name, resolveMoves(scene, value)] as const);
    return addStartedGrowth(move.begin, Object.fromEntries(given));
  }
  const growth = called(scene, 'hide' in move ? move.hide : 'add' in move ? move.to : move.of);
  if (!growth) return;
  if ('hide' in move) return changeGrowth(growth.id, 'Hide growth', { visible: false });
  select(growth.id);
  if ('add' in move) return addStep(growth.id, move.add);
  const step = growth.steps.find(({ kind }) => kind === kindOf(move));
  if (!step) return;
  if ('remove' in move) return deleteStep(growth.id, step.id);
  if ('preset' in move) return takePreset(growth.id, step.id, 'a preset', move.values);
  edit('Change values', (draft) => {
    const found = growthIn(draft, growth.id)?.steps.find(({ id }) => id === step.id);
    for (const [name, value] of Object.entries(move.values)) if (found) found.params[name] = resolveMoves(scene, value);
  });
  setView(({ openSteps }) => ({ openSteps: openSteps.includes(step.id) ? openSteps : [...openSteps, step.id] }));
}
