import { Problem } from '../problem';
import { usedFiles } from './usedFiles';
import { type Fault, faultOfScene, isObject, namedPlace, writtenPath } from './faults';
import { SCENE_FORMAT, SCENE_VERSION, type Scene } from './schema';

type Json = Record<string, unknown>;

function without(entry: Json, name: string): Json {
  const { [name]: _, ...rest } = entry;
  return rest;
}

/** Turns a document of one version into the next one's. */
export type Migration = (document: Json) => Json;
export const MIGRATIONS: Readonly<Record<number, Migration>> = {
  // Version 2 keeps files inside the scene.
  1: (document) => ({ ...document, assets: [] }),
  // Version 3 has markers.
  2: (document) => ({ ...document, markers: [] }),
  // Version 4 keeps files beside the scene, under the hash of their bytes; their bytes are taken out by `unpacked`.
  3: (document) => {
    const { assets, ...rest } = document;
    const files = Array.isArray(assets) ? (assets as unknown[]) : [];
    return { ...rest, files: files.map((file) => (isObject(file) ? without(file, 'data') : file)) };
  },
  // Version 5 gives growths a place, and keeps lens, camera and guides by single numbers, so that each can have keys.
  4: (document) => {
    const { growths, guides, finish, camera } = document;
    const { exposure, ...rest } = isObject(finish) ? finish : {};
    const { fov, position, target } = isObject(camera) ? camera : ({} as Json);
    return {
      ...document,
      growths: eachObject(growths, (growth) => ({ ...growth, place: {} })),
      guides: eachObject(guides, ({ kind, position: at, rotation, size, ...guide }) => ({
        ...guide,
        params: {
          which: kind,
          ...byAxes('position', at),
          ...byAxes('turn', rotation),
          ...byAxes('size', size),
          ...(Array.isArray(size) && typeof size[0] === 'number' && { radius: Math.max(0.0001, size[0] / 2) }),
        },
      })),
      finish: isObject(finish) ? rest : finish,
      lens: { ...(exposure !== undefined && { exposure }), ...(fov !== undefined && { fov }) },
      camera: isObject(camera) ? { ...byAxes('position', position), ...byAxes('target', target) } : camera,
    };
  },
  // Version 6 has groups of growths, and locks.
  5: (document) => ({
    ...document,
    growths: eachObject(document.growths, (growth) => ({ ...growth, group: null, locked: false })),
    groups: [],
  }),
  // Version 7 begins comments in rules with #: // is two rolls there.
  6: (document) => ({
    ...document,
    growths: eachObject(document.growths, (growth) => ({
      ...growth,
      steps: eachObject(growth.steps, (step) =>
        step.kind === 'rules' && isObject(step.params) && typeof step.params.rules === 'string'
          ? { ...step, params: { ...step.params, rules: step.params.rules.replaceAll(/\/\/(.*)$/gm, '#$1') } }
          : step,
      ),
    })),
  }),
};

const eachObject = (list: unknown, change: (entry: Json) => Json): unknown =>
  Array.isArray(list) ? list.map((entry: unknown) => (isObject(entry) ? change(entry) : entry)) : list;

/** A triple as three values: positionX, positionY, positionZ. */
const byAxes = (name: string, triple: unknown): Json =>
  Array.isArray(triple)
    ? Object.fromEntries(['X', 'Y', 'Z'].map((axis, i) => [`${name}${axis}`, (triple as unknown[])[i]]))
    : {};

/** Parses JSON. @throws Problem with the parser's reason */
export function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('This is not a JSON file, or it is cut off.', 'Choose a scene file that Uvrex saved.');
  }
}

/**
 * Reads a scene without files from its text; `readSceneFile` reads those with files too.
 * @throws Problem that names the place in the file and the reason, for anything that is not a sound scene
 */
export const readScene = (text: string): Scene => checkScene(parseJson(text));

/** Checks parsed JSON and brings it to the present version; see `readScene`. */
export function checkScene(json: unknown): Scene {
  const document = presentScene(json);
  const fault = faultOfScene(document);
  if (fault) throw problemOf(document, fault);
  return document as unknown as Scene;
}

/** A scene of any version as one of the present one, damaged or not. @throws Problem for what is no scene at all */
export function presentScene(json: unknown): Json {
  if (!isObject(json) || json.format !== SCENE_FORMAT) {
    throw new Problem(
      `This is not a Uvrex scene: "format" must be "${SCENE_FORMAT}".`,
      'Choose a scene file that Uvrex saved.',
      { path: 'format' },
    );
  }
  return migrate(json, MIGRATIONS, SCENE_VERSION);
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

/** A fault as an error: the place as written in the file, and in words. */
function problemOf(document: unknown, { path, reason }: Fault): Problem {
  const written = writtenPath(path);
  const named = namedPlace(document, path);
  return new Problem(
    `The scene file is not sound at ${written || 'its root'}${named ? ` (${named})` : ''}: ${reason}.`,
    'Mend that place in the file, or choose another one. Nothing was changed.',
    { path: written },
  );
}

/** The text of a scene file: JSON, indented, ending in a line break. Files that no step uses stay behind. */
export const writeScene = (scene: Scene): string =>
  `${JSON.stringify({ ...scene, files: usedFiles(scene, scene.growths) }, null, 2)}\n`;
