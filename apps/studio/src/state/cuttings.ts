import { type Clip, growthClip, LIMITS, newId, Problem, readClip, stepClip, unusedName, writeClip } from '@uvrex/core';
import { type Cutting, plantIn } from '@uvrex/core/cuttings';
import { save } from '@/export/save';
import { say } from '@/ui/Toasts';
import { sizeOf, titleOf } from './actions';
import { smallPicture } from './autosave';
import { pasteText } from './clips';
import { db, type StoredCutting } from './db';
import { edit, growthIn, useDocument } from './document';
import { setView, useView } from './view';

/** Sizes that things are planted for where nothing is known of their host, metres. */
const USUAL = 2;

/** Plants a cutting that ships: on the selected growth, or in the open. */
export function plant(cutting: Cutting): void {
  const { scene } = useDocument.getState();
  const host = cutting.on ? growthIn(scene, useView.getState().growth) : undefined;
  const planting = cutting.plant({ scene, host: host ?? null, size: (host && sizeOf(host.id)) ?? USUAL });
  const done = edit(`Plant ${cutting.name.toLowerCase()}`, (draft) => plantIn(draft, host?.id ?? null, planting));
  if (!done) return;
  const [first] = planting.steps;
  // One looks at what one has planted: its first step opened, or the growth that is new.
  if (first) setView(({ openSteps }) => ({ openSteps: [...openSteps, first.id] }));
  else setView({ growth: planting.growths[0].id, openSteps: [] });
  if (!host)
    setView(({ frameAll, frame }) => ({
      frameAll: frameAll + 1,
      frameFrom: null,
      frameOf: null,
      frame: useView.getState().playing ? frame : grownAt(),
    }));
}

/** A frame at which what grows over the range is there. */
function grownAt(): number {
  const [first, last] = useDocument.getState().scene.range;
  return first + Math.round(0.8 * (last - first));
}

/** Keeps a growth with what it needs, or one of its steps, to be planted again in any scene. */
export async function keepCutting(growthId: string, stepId?: string): Promise<void> {
  const { scene } = useDocument.getState();
  const growth = growthIn(scene, growthId);
  const step = growth?.steps.find(({ id }) => id === stepId);
  if (!growth || (stepId && !step)) return;
  // A step takes along what it copies.
  const clip = step
    ? withNeeds(stepClip(scene, growth, [step]), growthClip(scene, { ...growth, steps: [step] }))
    : growthClip(scene, growth);
  const name = await freeName(step ? titleOf(step) : growth.name);
  const stored: StoredCutting = {
    ...{ id: newId(), name, made: Date.now(), of: step ? 'steps' : 'growths' },
    ...{ text: writeClip(clip), picture: await smallPicture() },
  };
  await db.cuttings.add(stored);
  say({ tone: 'success', text: `“${name}” is kept among your cuttings.` });
}

/** The clip of a step together with the growths that it refers to. */
const withNeeds = (clip: Clip, needs: Clip): Clip => ({
  ...clip,
  scene: { ...clip.scene, growths: [...clip.scene.growths, ...needs.scene.growths.slice(1)] },
});

async function freeName(base: string): Promise<string> {
  const taken = await db.cuttings.toArray();
  return unusedName(base.slice(0, LIMITS.name), new Set(taken.map(({ name }) => name)));
}

export const plantOwn = ({ text }: StoredCutting): void => void pasteText(text);

export const renameCutting = async ({ id }: StoredCutting, name: string): Promise<void> => {
  await db.cuttings.update(id, { name });
};

/** Deletes a cutting. @returns what brings it back */
export async function deleteCutting(stored: StoredCutting): Promise<() => Promise<void>> {
  await db.cuttings.delete(stored.id);
  return async () => void (await db.cuttings.put(stored));
}

/** Hands a cutting out as a file. */
export function exportCutting({ name, text }: StoredCutting): void {
  const clip = JSON.parse(text) as { scene: { name: string } };
  clip.scene.name = name;
  const file = name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'Cutting';
  save({ name: `${file}.cutting.json`, blob: new Blob([JSON.stringify(clip, null, 1)], { type: 'application/json' }) });
}

/** Takes a cutting in from a file. @throws Problem for a file that holds none */
export async function importCutting(file: File): Promise<void> {
  const text = await file.text();
  const clip = readClip(text);
  if (!clip || (clip.of !== 'growths' && clip.of !== 'steps'))
    throw new Problem(`“${file.name}” is no cutting.`, 'Choose a file that was exported from your cuttings.');
  const name = await freeName(clip.scene.name || 'Cutting');
  await db.cuttings.add({ id: newId(), name, made: Date.now(), of: clip.of, text, picture: null });
}
