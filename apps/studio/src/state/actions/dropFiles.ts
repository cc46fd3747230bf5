import { FORM_NAMES, Problem, type SceneFile, stepOf } from '@uvrex/core';
import { say, sayProblem } from '../toasts';
import { addStartedGrowth, selectedGrowth } from './growthActions';
import { addStep } from './stepActions';
import { edit, growthIn, joinEdits, sceneNow } from '../document/document';
import { FILE_KINDS, storeFile } from '../storage/files';

/** What a dropped file becomes: the start of a growth, or a step of the selected one. */
interface Purpose {
  kind: SceneFile['kind'];
  step: string;
  onSelected?: boolean;
}

const PURPOSES: readonly Purpose[] = [
  { kind: 'form', step: 'form' },
  { kind: 'svg', step: 'vector' },
  { kind: 'table', step: 'table-lines' },
  { kind: 'picture', step: 'skin-picture', onSelected: true },
];

/** What a file becomes, by the ending of its name; undefined where it has no use. */
export const purposeOf = (name: string): Purpose | undefined =>
  PURPOSES.find(({ kind }) =>
    FILE_KINDS[kind].accept.split(',').some((ending) => ending.startsWith('.') && name.toLowerCase().endsWith(ending)),
  );

/** Takes in each file that was dropped into the view: a growth begins with it, or a picture is put on the selected one. */
export async function takeDropped(
  dropped: readonly { file: File; handle?: Promise<FileSystemFileHandle | null> }[],
): Promise<void> {
  for (const { file, handle } of dropped) {
    const found = purposeOf(file.name);
    try {
      if (!found)
        throw new Problem(
          `“${file.name}” begins no growth.`,
          `Drop a form (${FORM_NAMES}), an SVG, a CSV, or a PNG or JPEG for the selected growth; scenes are opened from the library.`,
        );
      const on = selectedGrowth();
      if (found.onSelected && !on)
        throw new Problem(
          'No growth is selected.',
          'Select the one whose skin is to have the picture, and drop it again.',
        );
      const { id, add } = await storeFile(found.kind, file);
      // The file and what it becomes come and go together.
      const end = joinEdits();
      add();
      const field = Object.entries(stepOf(found.step)!.params).find(([, spec]) => spec.type === 'file')![0];
      if (on && found.onSelected) putOn(on.id, found.step, field, id);
      else addStartedGrowth(found.step, { [field]: id });
      end();
      const watchable = await handle;
      if (watchable)
        await import('../storage/watchFiles').then(({ watchFile }) => watchFile(id, found.kind, watchable, file));
      say({ tone: 'info', text: `“${file.name}” is in the scene.` });
    } catch (error) {
      sayProblem(error);
    }
  }
}

/** Adds a step with a file to a growth; where it has one of the kind, that one takes the file. */
function putOn(growth: string, kind: string, field: string, file: string): void {
  const last = (): string | undefined => growthIn(sceneNow(), growth)?.steps.findLast((step) => step.kind === kind)?.id;
  if (last() === undefined) addStep(growth, kind);
  const id = last();
  edit('Choose picture', (draft) => {
    const step = growthIn(draft, growth)?.steps.find((one) => one.id === id);
    if (step) step.params[field] = file;
  });
}
