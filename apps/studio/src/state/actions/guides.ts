import { GUIDE, newGuide, newId, type Scene, type SceneGuide, SCENE_ID, unusedName, type Vec3 } from '@uvrex/core';
import { setParams } from './valueActions';
import { edit, sceneNow, stepIn } from '../document/document';
import { middleOfGrowth } from '../director/results';

/** Three values by the names of their fields: positionX, positionY, positionZ. */
export const axes = (name: string, [x, y, z]: Vec3): Record<string, number> => ({
  [`${name}X`]: rounded(x),
  [`${name}Y`]: rounded(y),
  [`${name}Z`]: rounded(z),
});

const rounded = (value: number): number => Math.round(value * 1e4) / 1e4;

type GuideKind = Parameters<typeof newGuide>[2];

/** A new guide of a kind, named after it. */
function guideOf(kind: GuideKind, { guides }: Scene): SceneGuide {
  const { options } = GUIDE.params.which;
  const word = kind === 'point' ? 'Guide' : options.find(({ value }) => value === kind)!.label;
  return newGuide(newId(), unusedName(word, new Set(guides.map(({ name }) => name))), kind);
}

/** Adds a guide of a kind. */
export const addGuide = (kind: GuideKind): void =>
  void edit('Add a guide', (draft: Scene) => void draft.guides.push(guideOf(kind, draft)));

/** Makes a guide in the middle of a growth, and has a step go by it. */
export function makeGuide(growthId: string, stepId: string, param: string): void {
  const guide = guideOf('point', sceneNow());
  const place = middleOfGrowth(growthId);
  if (place) Object.assign(guide.params, axes('position', place));
  edit('New guide', (draft) => {
    draft.guides.push(guide);
    const step = stepIn(draft, growthId, stepId);
    if (step) step.params[param] = `guide:${guide.id}`;
  });
}

/** Moves, turns or sizes a guide in the view: where it has keys, by keys at the playhead. */
export function shapeGuide(
  id: string,
  { centre, rotation, radius, size }: { centre?: Vec3; rotation?: Vec3; radius?: number; size?: Vec3 },
): void {
  const values = {
    ...(centre && axes('position', centre)),
    ...(rotation && axes('turn', rotation)),
    ...(radius !== undefined && { radius: rounded(radius) }),
    ...(size && axes('size', size)),
  };
  setParams(SCENE_ID, id, values, `guide ${Object.keys(values).join()}`);
}

export function renameGuide(id: string, name: string): void {
  edit('Rename a guide', (draft) => {
    const guide = draft.guides.find((entry) => entry.id === id);
    if (guide) guide.name = name;
  });
}

export const deleteGuide = (id: string): void =>
  void edit('Delete a guide', (draft) => void (draft.guides = draft.guides.filter((entry) => entry.id !== id)));
