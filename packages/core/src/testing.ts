import { Evaluator } from './evaluate/evaluator';
import type { Surroundings } from './evaluate/results';
import type { Form } from './geometry/form';
import { newGrowth, newScene } from './scene/make';
import type { Scene, SceneFile, Step } from './scene/schema';

/** An evaluator for tests: a clock that stands still, so that nothing depends on time. */
export const testEvaluator = (budgets = {}, stage?: Surroundings['stage']): Evaluator =>
  new Evaluator({ now: () => 0, budgets, shipped, stage, file: async (id) => FILES.get(id) });

const FILES = new Map<string, Uint8Array>();
/** Gives a scene a file of the text given. */
export function putFile(scene: Scene, id: string, kind: SceneFile['kind'], text: string): void {
  putBytes(scene, id, kind, new TextEncoder().encode(text));
}

/** Puts a file of bytes into a scene. */
export function putBytes(scene: Scene, id: string, kind: SceneFile['kind'], bytes: Uint8Array): void {
  FILES.set(id, bytes);
  scene.files.push({ id, name: `${id}.${kind}`, kind });
}

/** Set by tests that need a file that comes with Uvrex: the engine itself knows no file system. */
let shipped: Surroundings['shipped'];
export const shipForTests = (load: typeof shipped): void => void (shipped = load);

/** A scene of one growth with fixed seeds. */
export function sceneOf(steps: Step[], name = 'Frond'): Scene {
  const scene = newScene('Test reef');
  scene.seed = 7;
  steps.forEach((step, i) => (step.id = `step${i}`));
  scene.growths = [{ ...newGrowth(name, 0, steps), id: 'growth', seed: 3 }];
  return scene;
}

/** The form of a scene's first growth at a frame; fails loudly on any notice. */
export async function formOf(scene: Scene, frame = 1): Promise<Form> {
  const result = await testEvaluator().evaluate(scene, frame);
  const [growth] = result.growths;
  if (!growth.form || growth.notices.some(({ level }) => level !== 'note'))
    throw new Error(JSON.stringify(growth.notices));
  return growth.form;
}
