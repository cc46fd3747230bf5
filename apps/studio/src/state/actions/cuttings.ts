import { type Clip, growthClip, isShown, growthsClip, newId, type Scene, stepClip, writeClip } from '@uvrex/core';
import { aside, type Cutting, plantIn } from '@uvrex/core/cuttings';
import { say, sayProblem } from '../toasts';
import { sizeOf, titleOf } from './stepActions';
import { pasteText } from './clips';
import { freeCuttingName } from '../storage/cuttingShelf';
import { db, type StoredCutting } from '../../store/db';
import { edit, growthIn, useDocument } from '../document/document';
import type { Asked } from './cuttingRequest';
import { wholeOf } from '../director/results';
import { setView, useView } from '../document/view';

/** Sizes that things are planted for where nothing is known of their host, metres. */
const USUAL = 2;

/** Plants a cutting that ships: on the selected growth, or in the open. */
export function plant(cutting: Cutting): void {
  const { scene } = useDocument.getState();
  const host = cutting.on ? growthIn(scene, useView.getState().growth) : undefined;
  let made: ReturnType<Cutting['plant']>;
  try {
    made = cutting.plant({ scene, host: host ?? null, size: (host && sizeOf(host.id)) ?? USUAL });
  } catch (error) {
    return sayProblem(error);
  }
  const planting = host ? made : aside(made, freeSide(scene));
  const done = edit(`Plant ${cutting.name.toLowerCase()}`, (draft) => plantIn(draft, host?.id ?? null, planting));
  if (!done) return;
  const [first] = planting.steps;
  // One looks at what one has planted: its first step opened, or the growth that is new.
  const shown = !planting.changed?.some(({ id, visible }) => id === host?.id && !visible);
  if (first && shown) setView(({ openSteps }) => ({ openSteps: [...openSteps, first.id] }));
  else setView({ growth: planting.growths[0].id, openSteps: [] });
  if (!host)
    setView(({ frameAll, frame }) => ({
      frameAll: frameAll + 1,
      frameFrom: null,
      frameOf: null,
      frame: useView.getState().playing ? frame : grownAt(),
    }));
}

/** Room between what is there and what is planted beside it, metres. */
const APART = 0.3;

/** Where along X there is room for one more: beside all that is shown, or in the middle where nothing is. */
function freeSide(scene: Scene): number {
  const shown = scene.growths.filter((growth) => isShown(scene, growth));
  if (shown.length === 0) return 0;
  // Of what has not been evaluated yet the usual size is taken for its own.
  const edge = wholeOf(null)?.max[0] ?? (shown.length - 0.5) * USUAL;
  return Math.round(10 * (edge + APART + USUAL / 2)) / 10;
}

/** A frame at which what grows over the range is there. */
function grownAt(): number {
  const [first, last] = useDocument.getState().scene.range;
  return first + Math.round(0.8 * (last - first));
}

/** What a cutting of these would be called. */
export function nameOfKept({ growths, steps }: Asked): string {
  const { scene } = useDocument.getState();
  const growth = growthIn(scene, growths[0]);
  const step = growth?.steps.find(({ id }) => id === steps?.[0]);
  if (steps?.length === 1 && step) return titleOf(step);
  return steps ? `Steps of ${growth?.name ?? ''}` : (growth?.name ?? '');
}

/** Keeps growths with what they need, or steps of one, to be planted again in any scene. */
export async function keepCutting({ growths, steps, name }: Asked & { name: string }): Promise<void> {
  const clip = clipOfKept(growths, steps);
  if (!clip) return;
  const free = await freeCuttingName(name);
  const stored: StoredCutting = {
    ...{ id: newId(), name: free, made: Date.now(), of: steps ? 'steps' : 'growths' },
    ...{ text: writeClip(clip), picture: await pictureOf(growths, clip) },
  };
  await db.cuttings.add(stored);
  say({ tone: 'success', text: `“${free}” is kept among your cuttings.` });
}

function clipOfKept(ids: readonly string[], stepIds?: readonly string[]): Clip | null {
  const { scene } = useDocument.getState();
  const growths = scene.growths.filter(({ id }) => ids.includes(id));
  if (growths.length === 0) return null;
  if (!stepIds) return growthsClip(scene, growths);
  const [growth] = growths;
  const steps = growth.steps.filter(({ id }) => stepIds.includes(id));
  if (steps.length === 0) return null;
  // Steps take along what they copy.
  const needs = growthClip(scene, { ...growth, steps });
  const clip = stepClip(scene, growth, steps);
  const { groups, growths: needed } = needs.scene;
  return { ...clip, scene: { ...clip.scene, groups, growths: [...clip.scene.growths, ...needed.slice(1)] } };
}

/** A small picture of what is kept: those growths alone, as they have grown at the end; null where none can be drawn. */
async function pictureOf(ids: readonly string[], clip: Clip): Promise<Blob | null> {
  const { scene } = useDocument.getState();
  // A group none of whose growths is kept may be copied by one that is: it is hidden as a whole.
  const kept = new Set(scene.growths.flatMap(({ id, group }) => (ids.includes(id) ? (group ?? []) : [])));
  const alone: Scene = {
    ...scene,
    groups: scene.groups.map((group) => ({ ...group, visible: kept.has(group.id) })),
    growths: scene.growths.map((growth) =>
      growth.group !== null && !kept.has(growth.group)
        ? growth
        : { ...growth, visible: ids.includes(growth.id) && (ids.length === 1 || growth.visible) },
    ),
  };
  if (typeof document === 'undefined' || clip.scene.growths.length === 0) return null;
  try {
    const { onePicture } = await import('@/export/onePicture');
    return await onePicture(alone, scene.range[1]);
  } catch {
    return null;
  }
}

export const plantOwn = ({ text }: StoredCutting): void => void pasteText(text);
