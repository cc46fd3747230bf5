import { baseOf, CAMERA, isTrack, type ParamValue, type Track, withBase, withKey } from '@uvrex/core';
import { say } from '../toasts';
import { edit, sceneNow } from '../document/document';
import { axes } from './guides';
import { type Eye, setView, useView } from '../document/view';

/**
 * Makes a view the shot's camera. Where anything of the camera's place or target is animated, all of it gets a key at the
 * playhead, and what stood still gets keys with its value where the others have theirs: no other frame changes.
 */
export function keepAsShot({ position, target }: Eye): void {
  const values = { ...axes('position', position), ...axes('target', target) };
  const frame = Math.round(useView.getState().frame);
  const bases = Object.keys(values).map((name) => baseOf(sceneNow().camera[name]));
  const frames = [...new Set(bases.flatMap((base) => (isTrack(base) ? base.keys.map((key) => key.frame) : [])))];
  frames.sort((a, b) => a - b);
  const [leading] = bases.filter(isTrack);
  edit('Set camera to view', ({ camera }) => {
    for (const [name, value] of Object.entries(values)) {
      const old: ParamValue = camera[name] ?? CAMERA.params[name as 'positionX'].default;
      const base = baseOf(old);
      if (!leading) camera[name] = value;
      else if (isTrack(base)) camera[name] = withBase(old, withKey(base, frame, value));
      else if (typeof base === 'number')
        camera[name] = withBase(old, withKey(still(base, leading, frames), frame, value));
    }
  });
  setView({ eye: null });
  say({ tone: 'success', text: leading ? `The shot has a key at frame ${frame}.` : 'The shot has this view now.' });
}

/** A track that keeps one value, with keys where others have them. */
const still = (value: number, leading: Track, frames: readonly number[]): Track => ({
  ...leading,
  keys: frames.map((frame) => ({
    frame,
    value,
    ease: leading.keys.findLast((key) => key.frame <= frame)?.ease ?? leading.keys[0].ease,
  })),
});
