import { type Guide, GUIDE, newGuide, newId, type Scene, SCENE_ID, type Vec3 } from '@uvrex/core';
import { setParams } from './valueActions';
import { edit } from './document';

/** Three values by the names of their fields: positionX, positionY, positionZ. */
export const axes = (name: string, [x, y, z]: Vec3): Record<string, number> => ({
  [`${name}X`]: rounded(x),
  [`${name}Y`]: rounded(y),
  [`${name}Z`]: rounded(z),
});

const rounded = (value: number): number => Math.round(value * 1e4) / 1e4;

/** Adds a guide of a kind, named after it. */
export function addGuide(kind: Guide['kind']): void {
  edit('Add a guide', (draft: Scene) => {
    const taken = new Set(draft.guides.map(({ name }) => name));
    const { options } = GUIDE.params.which;
    const word = kind === 'point' ? 'Guide' : options.find(({ value }) => value === kind)!.label;
    let name = word;
    for (let i = 2; taken.has(name); i++) name = `${word} ${i}`;
    draft.guides.push(newGuide(newId(), name, kind));
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
