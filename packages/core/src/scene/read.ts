import { Problem } from '../problem';
import { stepOf } from '../steps/index';
import { usedAssets } from './assets';
import { SCENE_FORMAT, SCENE_VERSION, type Scene, sceneSchema } from './schema';
import { paramFault } from './params';

type Json = Record<string, unknown>;

/** Turns a document of one version into the next one's. */
export type Migration = (document: Json) => Json;
export const MIGRATIONS: Readonly<Record<number, Migration>> = {
  // Version 2 keeps files inside the scene.
  1: (document) => ({ ...document, assets: [] }),
  // Version 3 has markers.
  2: (document) => ({ ...document, markers: [] }),
};

/**
 * Reads a scene from the text of a file.
 * @throws Problem that names the place in the file and the reason, for anything that is not a sound scene
 */
export function readScene(text: string): Scene {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Problem(`This is not a JSON file: ${(error as Error).message}.`, 'Choose a scene file that Uvrex saved.');
  }
  return checkScene(json);
}

/** Checks parsed JSON and brings it to the present version; see `readScene`. */
export function checkScene(json: unknown): Scene {
  if (typeof json !== 'object' || json === null || (json as Json).format !== SCENE_FORMAT) {
    throw new Problem(
      `This is not a Uvrex scene: "format" must be "${SCENE_FORMAT}".`,
      'Choose a scene file that Uvrex saved.',
      { path: 'format' },
    );
  }
  const document = migrate(json as Json, MIGRATIONS, SCENE_VERSION);
  const parsed = sceneSchema.safeParse(document);
  if (!parsed.success) {
    const issue = deepest(parsed.error.issues);
    fault(document, issue.path, issue.message);
  }
  const scene = parsed.data as Scene;
  checkSteps(scene);
  return scene;
}

/** Applies migrations one version after another up to `target`. */
export function migrate(document: Json, migrations: Readonly<Record<number, Migration>>, target: number): Json {
  const { version } = document;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new Problem('The scene\'s "version" is missing or no whole number.', 'Save the scene again in Uvrex.', {
      path: 'version',
    });
  }
  if (version > target) {
    throw new Problem(
      `The scene is of version ${version}; this Uvrex reads up to ${target}.`,
      'Open it in a newer Uvrex.',
      { path: 'version' },
    );
  }
  let current = document;
  for (let v = version; v < target; v++) {
    const next = migrations[v];
    if (!next)
      throw new Problem(`Scenes of version ${v} can no longer be read.`, 'Save the scene again in an older Uvrex.', {
        path: 'version',
      });
    current = { ...next(current), version: v + 1 };
  }
  return current;
}

interface Issue {
  path: PropertyKey[];
  message: string;
  errors?: Issue[][];
}

/** Inside a union, the branch that got furthest tells most. */
function deepest(issues: readonly unknown[]): Issue {
  const issue = issues[0] as Issue;
  const branches = issue.errors?.filter((branch) => branch.length > 0).map(deepest) ?? [];
  const best = branches.sort((a, b) => b.path.length - a.path.length)[0];
  return best && best.path.length > 0 ? { path: [...issue.path, ...best.path], message: best.message } : issue;
}

function checkSteps(scene: Scene): void {
  unique(
    scene,
    ['growths'],
    scene.growths.map((growth) => growth.id),
  );
  unique(
    scene,
    ['assets'],
    scene.assets.map((asset) => asset.id),
  );
  scene.growths.forEach((growth, g) => {
    unique(
      scene,
      ['growths', g, 'steps'],
      growth.steps.map((step) => step.id),
    );
    growth.steps.forEach((step, s) => {
      const at = ['growths', g, 'steps', s];
      const declaration = stepOf(step.kind);
      if (!declaration) fault(scene, [...at, 'kind'], `there is no step "${step.kind}" in this Uvrex`);
      for (const [name, value] of Object.entries(step.params)) {
        const spec = Object.hasOwn(declaration.params, name) ? declaration.params[name] : undefined;
        const reason = spec ? paramFault(spec, value) : `the step ${declaration.label} has no parameter "${name}"`;
        if (reason) fault(scene, [...at, 'params', name], reason);
      }
    });
  });
}

function unique(scene: Scene, path: PropertyKey[], ids: string[]): void {
  const twice = ids.findIndex((id, i) => ids.indexOf(id) !== i);
  if (twice >= 0) fault(scene, [...path, twice, 'id'], `the id "${ids[twice]}" is used twice`);
}

/** A schema's complaint in words that say what to mend. */
function plain(reason: string): string {
  const missing = /expected (\w+), received undefined/.exec(reason);
  return (missing ? `it is missing, and must be of type ${missing[1]}` : reason).replace(/\.$/, '');
}

/** Throws with the place written as growths[0].steps[2].params.to, and the names of the growth and step there. */
function fault(document: unknown, path: PropertyKey[], reason: string): never {
  const written = path
    .map((part, i) => (typeof part === 'number' ? `[${part}]` : `${i ? '.' : ''}${String(part)}`))
    .join('');
  const growth =
    path[0] === 'growths' && typeof path[1] === 'number' ? (document as Scene).growths?.[path[1]]?.name : undefined;
  const inGrowth = typeof growth === 'string' ? ` (growth “${growth}”)` : '';
  throw new Problem(
    `The scene file is not sound at ${written || 'its root'}${inGrowth}: ${plain(reason)}.`,
    'Mend that place in the file, or choose another one. Nothing was changed.',
    { path: written },
  );
}

/** The text of a scene file: JSON, indented, ending in a line break. Files that no step uses stay behind. */
export const writeScene = (scene: Scene): string =>
  `${JSON.stringify({ ...scene, assets: usedAssets(scene, scene.growths) }, null, 2)}\n`;
