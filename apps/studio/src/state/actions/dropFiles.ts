import { FORM_NAMES, Problem, type SceneFile, stepOf } from '@uvrex/core';
import { say, sayProblem } from '../toasts';
import { addStartedGrowth } from './growthActions';
import { joinEdits } from '../document/document';
import { FILE_KINDS, storeFile } from '../storage/files';

/** The starts that files begin growths with, by the kind of file. */
const STARTS: readonly { kind: SceneFile['kind']; start: string }[] = [
  { kind: 'form', start: 'form' },
  { kind: 'svg', start: 'vector' },
  { kind: 'table', start: 'table-lines' },
];

/** The start that a file begins, by the ending of its name; undefined where there is none. */
export const startFor = (name: string): (typeof STARTS)[number] | undefined =>
  STARTS.find(({ kind }) =>
    FILE_KINDS[kind].accept.split(',').some((ending) => ending.startsWith('.') && name.toLowerCase().endsWith(ending)),
  );

/** Begins a growth with each file that was dropped into the view. */
export async function takeDropped(files: readonly File[]): Promise<void> {
  for (const file of files) {
    const found = startFor(file.name);
    try {
      if (!found)
        throw new Problem(
          `“${file.name}” begins no growth.`,
          `Drop a form (${FORM_NAMES}), an SVG or a CSV; scenes are opened from the library.`,
        );
      const { id, add } = await storeFile(found.kind, file);
      // The file and the growth that it begins come and go together.
      const end = joinEdits();
      add();
      const field = Object.entries(stepOf(found.start)!.params).find(([, spec]) => spec.type === 'file')!;
      addStartedGrowth(found.start, { [field[0]]: id });
      end();
      say({ tone: 'info', text: `“${file.name}” is in the scene.` });
    } catch (error) {
      sayProblem(error);
    }
  }
}
