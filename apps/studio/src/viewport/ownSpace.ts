import {
  add,
  type Growth,
  growthPlace,
  GrowthValues,
  placeOwner,
  type Resolved,
  scale,
  sub,
  turnedBack,
  turnedBy,
  turnOf,
  type Vec3,
} from '@uvrex/core';
import { ownFrame } from '@/state/actions/valueActions';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';

/** How a growth's own space, in which its steps work, lies in the scene at the playhead. */
export function useOwnSpace(growth: Growth): {
  toOwn: (place: Vec3) => Vec3;
  toWorld: (place: Vec3) => Vec3;
  /** Metres in the scene of one in the growth's own space. */
  size: number;
} {
  const frame = useView((state) => state.frame);
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  let values: Resolved;
  try {
    values = new GrowthValues(growth, { fps, range }, ownFrame(growth, frame)).of(growthPlace, placeOwner(growth));
  } catch {
    // A formula that fails is told at its field; until it is mended nothing of the growth is shown.
    return { toOwn: (place) => place, toWorld: (place) => place, size: 1 };
  }
  const number = (name: string): number => Number(values[name]);
  const turn = turnOf(number('turnX'), number('turnY'), number('turnZ'));
  const size = number('scale');
  const move: Vec3 = [number('moveX'), number('moveY'), number('moveZ')];
  return {
    size,
    toWorld: (place) => add(scale(turnedBy(turn, place), size), move),
    toOwn: (place) => scale(turnedBack(turn, sub(place, move)), 1 / size),
  };
}
