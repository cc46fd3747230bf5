import { references } from './references';
import { Problem } from '../problem';
import { newScene } from './make';
import { checkScene } from './read';
import { usedFiles } from './usedFiles';
import type { Track } from '../time/track';
import { ownersOf, placeOwner, SCENE_ID, SCENE_PARTS, sceneOwners } from './owners';
import { baseOf, type Growth, isTrack, type Params, type ParamValue, type Scene, type Step } from './schema';

/** What `format` says in every clip. */
export const CLIP_FORMAT = 'uvrex-clip';

/** What is copied: a whole growth with those it needs, steps, the tracks of steps, or some keys of them. */
export const CLIPS = ['growths', 'steps', 'tracks', 'keys'] as const;
/** What a clip holds. */
export type ClipOf = (typeof CLIPS)[number];

/** Parts of a scene on their way to another place: in the growths of a small scene of their own, with its files. */
export interface Clip {
  of: ClipOf;
  /** How many of the growths, from the first on, are what was copied; those after them are what these need. One where left out. */
  own?: number;
  scene: Scene;
}

/**
 * @param copied ids of the groups that growths among these copy as a whole
 */
const clipOf = (of: ClipOf, from: Scene, growths: Growth[], copied: ReadonlySet<string> = new Set()): Clip => ({
  of,
  // Groups stay where they are, unless they are copied as a whole.
  scene: {
    ...newScene('Clip'),
    groups: from.groups.filter(({ id }) => copied.has(id)),
    growths: growths.map((growth) => (growth.group && copied.has(growth.group) ? growth : { ...growth, group: null })),
    files: usedFiles(from, growths),
    guides: from.guides,
  },
});

/** A growth, and after it those that it needs: what it copies, rides with, or takes the paths of. */
export const growthClip = (scene: Scene, growth: Growth): Clip => growthsClip(scene, [growth]);

/** Several growths, and after them those that they need besides. */
export function growthsClip(scene: Scene, growths: readonly Growth[]): Clip {
  const taken = [...growths];
  const copied = new Set<string>();
  for (const one of taken)
    for (const id of references(one)) {
      const members = scene.growths.filter((entry) => entry.id === id || entry.group === id);
      if (members.length > 0 && members[0].id !== id) copied.add(id);
      for (const other of members) if (!taken.includes(other)) taken.push(other);
    }
  return { ...clipOf('growths', scene, taken, copied), own: growths.length };
}

/** A clip of one step of a growth, with the growths that it refers to. */
export const stepClip = (scene: Scene, growth: Growth, steps: Step[]): Clip =>
  clipOf('steps', scene, [{ ...growth, steps }]);

/**
 * Only what moves of a growth's owners of numbers, or of the scene's own: their tracks, the other values left out.
 * @param holder id of the growth, or `SCENE_ID`
 * @param wanted keys of a track that come along; the track is left out where none does
 */
function movingClip(
  of: ClipOf,
  scene: Scene,
  holder: string,
  wanted: (owner: Step, param: string, frame: number) => boolean,
): Clip {
  const moving = (owner: Step): Params =>
    Object.fromEntries(
      Object.entries(owner.params).flatMap(([name, value]): [string, ParamValue][] => {
        const track = baseOf(value);
        if (!isTrack(track)) return [];
        const keys = track.keys.filter(({ frame }) => wanted(owner, name, frame));
        return keys.length > 0 ? [[name, { ...track, keys }]] : [];
      }),
    );
  if (holder === SCENE_ID) {
    const params = new Map(sceneOwners(scene).map((owner) => [owner.id, moving(owner)]));
    const clip = clipOf(of, scene, []);
    for (const part of SCENE_PARTS) clip.scene[part] = params.get(part)!;
    clip.scene.guides = scene.guides.map((guide) => ({ ...guide, params: params.get(guide.id)! }));
    return clip;
  }
  const growth = scene.growths.find(({ id }) => id === holder)!;
  const steps = growth.steps
    .map((step) => ({ ...step, params: moving(step) }))
    .filter(({ params }) => Object.keys(params).length > 0);
  return clipOf(of, scene, [{ ...growth, steps, place: moving(placeOwner(growth)) }]);
}

/** All tracks of a growth, or of the scene's own parts. */
export const trackClip = (scene: Scene, holder: string): Clip => movingClip('tracks', scene, holder, () => true);

/** Only some keys of some tracks. */
export const keyClip = (
  scene: Scene,
  holder: string,
  wanted: (owner: Step, param: string, frame: number) => boolean,
): Clip => movingClip('keys', scene, holder, wanted);

/** The tracks that a clip brings, each with what it is of. */
export function tracksOfClip({ scene }: Clip): { owner: Step; param: string; track: Track }[] {
  const owners = scene.growths.length > 0 ? scene.growths.flatMap(({ id }) => ownersOf(scene, id)) : sceneOwners(scene);
  return owners.flatMap((owner) =>
    Object.entries(owner.params).flatMap(([param, value]) => {
      const track = baseOf(value);
      return isTrack(track) ? [{ owner, param, track }] : [];
    }),
  );
}

/** A clip as text. */
export const writeClip = (clip: Clip): string =>
  JSON.stringify({ format: CLIP_FORMAT, of: clip.of, own: clip.own, scene: clip.scene });

/**
 * Reads what `writeClip` wrote.
 * @returns null for a text that is something else altogether
 * @throws Problem for a clip that is damaged
 */
export function readClip(text: string): Clip | null {
  if (!text.trimStart().startsWith('{') || !text.includes(CLIP_FORMAT)) return null;
  let json: { format?: unknown; of?: unknown; own?: unknown; scene?: unknown };
  try {
    json = JSON.parse(text) as typeof json;
  } catch {
    return null;
  }
  if (json.format !== CLIP_FORMAT) return null;
  const of = CLIPS.find((kind) => kind === json.of);
  if (!of) throw new Problem('What was copied is of an unknown kind.', 'Copy it again.');
  const scene = checkScene(json.scene);
  const own = json.own ?? 1;
  if (typeof own !== 'number' || !Number.isInteger(own) || own < 1 || own > Math.max(1, scene.growths.length))
    throw new Problem('What was copied is damaged: how many growths it holds is wrong.', 'Copy it again.');
  return { of, own, scene };
}
