import {
  add,
  type Growth,
  growthPlace,
  GrowthValues,
  placeOwner,
  scale,
  sub,
  turnedBack,
  turnedBy,
  turnOf,
  type Vec3,
} from '@uvrex/core';
import { ownFrame } from '@/state/actions';
import { useDocument } from '@/state/document';
import { useView } from '@/state/view';

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
  const values = new GrowthValues(growth, { fps, range }, ownFrame(growth, frame));
  const own = placeOwner(growth);
  const number = (name: string): number => values.one(growthPlace, own, name) as number;
  const turn = turnOf(number('turnX'), number('turnY'), number('turnZ'));
  const size = number('scale');
  const move: Vec3 = [number('moveX'), number('moveY'), number('moveZ')];
  return {
    size,
    toWorld: (place) => add(scale(turnedBy(turn, place), size), move),
    toOwn: (place) => scale(turnedBack(turn, sub(place, move)), 1 / size),
  };
}
