import { type Guide, newId, type Scene, type Vec3 } from '@uvrex/core';
import { edit } from './document';

export const GUIDE_KINDS: readonly { kind: Guide['kind']; label: string }[] = [
  { kind: 'point', label: 'Point' },
  { kind: 'plane', label: 'Plane' },
  { kind: 'ball', label: 'Ball' },
  { kind: 'box', label: 'Box' },
];

const rounded = (value: Vec3): Guide['position'] => value.map((x) => Math.round(x * 1e4) / 1e4) as Guide['position'];

/** Adds a guide of a kind, named after it. */
export function addGuide(kind: Guide['kind']): void {
  edit('Add a guide', (draft: Scene) => {
    const taken = new Set(draft.guides.map(({ name }) => name));
    const word = kind === 'point' ? 'Guide' : GUIDE_KINDS.find((entry) => entry.kind === kind)!.label;
    let name = word;
    for (let i = 2; taken.has(name); i++) name = `${word} ${i}`;
    draft.guides.push({ id: newId(), name, kind, position: [0, 1, 0], rotation: [0, 0, 0], size: [1, 1, 1] });
  });
}

/** Moves, turns, sizes or renames a guide; changes in a row are one undo until `endEdit`. */
export function changeGuide(
  id: string,
  change: { position?: Vec3; rotation?: Vec3; size?: Vec3; kind?: Guide['kind']; name?: string },
): void {
  edit(
    'Change a guide',
    (draft) => {
      const guide = draft.guides.find((entry) => entry.id === id);
      if (!guide) return;
      const { position, rotation, size, ...rest } = change;
      Object.assign(guide, rest);
      if (position) guide.position = rounded(position);
      if (rotation) guide.rotation = rounded(rotation);
      if (size) guide.size = rounded(size);
    },
    `guide:${id}:${Object.keys(change).join()}`,
  );
}

export const deleteGuide = (id: string): void =>
  void edit('Delete a guide', (draft) => void (draft.guides = draft.guides.filter((entry) => entry.id !== id)));
