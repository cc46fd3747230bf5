import { references } from '../evaluate/plan';
import { Problem } from '../problem';
import { newScene } from './make';
import { checkScene } from './read';
import { usedFiles } from './usedFiles';
import { type Track } from '../time/track';
import { baseOf, type Growth, isTrack, type ParamValue, type Scene, type Step } from './schema';

export const CLIP_FORMAT = 'uvrex-clip';

/** What is copied: a whole growth with those it needs, steps, the tracks of steps, or some keys of them. */
export const CLIPS = ['growths', 'steps', 'tracks', 'keys'] as const;
export type ClipOf = (typeof CLIPS)[number];

/** Parts of a scene on their way to another place: in the growths of a small scene of their own, with its files. */
export interface Clip {
  of: ClipOf;
  scene: Scene;
}

const clipOf = (of: ClipOf, from: Scene, growths: Growth[]): Clip => ({
  of,
  scene: { ...newScene('Clip'), growths, files: usedFiles(from, growths), guides: from.guides },
});

/** A growth, and after it those that it needs: what it copies, rides with, or takes the paths of. */
export function growthClip(scene: Scene, growth: Growth): Clip {
  const taken = [growth];
  for (const one of taken)
    for (const id of references(one)) {
      const other = scene.growths.find((entry) => entry.id === id);
      if (other && !taken.includes(other)) taken.push(other);
    }
  return clipOf('growths', scene, taken);
}

export const stepClip = (scene: Scene, growth: Growth, steps: Step[]): Clip =>
  clipOf('steps', scene, [{ ...growth, steps }]);

/** Only what moves of some steps: their tracks, the other values left out. */
export const trackClip = (scene: Scene, growth: Growth, wanted: (step: Step, param: string) => boolean): Clip =>
  clipOf('tracks', scene, [
    {
      ...growth,
      steps: growth.steps.flatMap((step) => {
        const tracks = Object.entries(step.params).filter(
          ([name, value]) => isTrack(baseOf(value)) && wanted(step, name),
        );
        return tracks.length > 0
          ? [
              {
                ...step,
                params: Object.fromEntries(tracks.map(([name, value]) => [name, baseOf(value) as ParamValue])),
              },
            ]
          : [];
      }),
    },
  ]);

/** Only some keys of some tracks. */
export function keyClip(
  scene: Scene,
  growth: Growth,
  wanted: (step: Step, param: string, frame: number) => boolean,
): Clip {
  const clip = trackClip(scene, growth, () => true);
  const steps = clip.scene.growths[0].steps.flatMap((step) => {
    const params = Object.entries(step.params).flatMap(([name, value]): [string, ParamValue][] => {
      const track = value as Track;
      const keys = track.keys.filter(({ frame }) => wanted(step, name, frame));
      return keys.length > 0 ? [[name, { ...track, keys }]] : [];
    });
    return params.length > 0 ? [{ ...step, params: Object.fromEntries(params) }] : [];
  });
  return { of: 'keys', scene: { ...clip.scene, growths: [{ ...clip.scene.growths[0], steps }] } };
}

export const writeClip = (clip: Clip): string =>
  JSON.stringify({ format: CLIP_FORMAT, of: clip.of, scene: clip.scene });

/**
 * Reads what `writeClip` wrote.
 * @returns null for a text that is something else altogether
 * @throws Problem for a clip that is damaged
 */
export function readClip(text: string): Clip | null {
  if (!text.trimStart().startsWith('{') || !text.includes(CLIP_FORMAT)) return null;
  let json: { format?: unknown; of?: unknown; scene?: unknown };
  try {
    json = JSON.parse(text) as typeof json;
  } catch {
    return null;
  }
  if (json.format !== CLIP_FORMAT) return null;
  const of = CLIPS.find((kind) => kind === json.of);
  if (!of) throw new Problem('What was copied is of an unknown kind.', 'Copy it again.');
  return { of, scene: checkScene(json.scene) };
}
