import { defineStep, place } from '../declare';
import { MOVABLE } from './movable';
import { moveSummary, turnFields } from './transform';

/** Where a growth stands as a whole: every growth has it, and it comes after its last step. */
export const growthPlace = defineStep({
  kind: 'place',
  family: 'place',
  label: 'Place',
  icon: 'M10 17C6 12 4.5 10 4.5 7.5A5.5 5.5 0 0 1 15.5 7.5C15.5 10 14 12 10 17ZM10 7.5H10.01',
  help: 'Moves, turns and sizes the whole growth, about the origin, after all its steps.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    ...place('move', 'Move', 'By how much, after sizing and turning.', [0, 0, 0]),
    ...turnFields,
    scale: {
      type: 'number',
      unit: 'share',
      label: 'Scale',
      help: 'Size of the whole growth.',
      default: 1,
      min: 0,
      max: 1000,
      slider: [0.05, 4],
    },
  },
  summary: moveSummary,
  async run(form, p) {
    const { movedForm, turnOf } = await import('../../curves/moveForm');
    const turn = turnOf(p.turnX, p.turnY, p.turnZ);
    return movedForm(form, { turn, size: p.scale, move: [p.moveX, p.moveY, p.moveZ] });
  },
});
