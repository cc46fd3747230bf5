import { placeIn } from '../../curves/elements';
import { withFrames } from '../../curves/pathFrames';
import { POINTS, type Points } from '../../geometry/form';
import { type Paths, pathCount, PATHS } from '../../geometry/paths';
import { after, type Turn, turnedBy } from '../../geometry/turns';
import { at } from '../../geometry/vec';
import type { Element } from '../../geometry/element';

/** What a rigid turn does to the frames of paths: each path's turn with it as a whole, by the turn at its first point. */
export function withTurnedFrames(moved: Paths, before: Paths, turnAt: (element: Readonly<Element>) => Turn): Paths {
  const rest = withFrames(before);
  const [tangents, normals] = [new Float32Array(rest.tangents.length), new Float32Array(rest.normals.length)];
  const element = placeIn(PATHS, before, 'point', pathCount(before));
  for (let path = 0; path < pathCount(before); path++) {
    const [a, b] = [before.offsets[path], before.offsets[path + 1]];
    if (a === b) continue;
    element.id = before.ids[path];
    element.index = path;
    element.at = a;
    element.u = before.u[a];
    const turn = turnAt(element);
    for (let i = a; i < b; i++) {
      tangents.set(turnedBy(turn, at(rest.tangents, i)), 3 * i);
      normals.set(turnedBy(turn, at(rest.normals, i)), 3 * i);
    }
  }
  return { ...moved, tangents, normals };
}

/** Loose points turned and sized as they were moved, each by its own angles and factor. */
export function withTurnedPoints(
  moved: Points,
  before: Points,
  turnAt: (element: Readonly<Element>) => Turn,
  sizeAt: (element: Readonly<Element>) => number,
): Points {
  const count = before.ids.length;
  const [turns, size] = [new Float32Array(4 * count), new Float32Array(count)];
  const element = placeIn(POINTS, before, 'point', count);
  for (let i = 0; i < count; i++) {
    element.at = element.index = i;
    element.id = before.dice[i];
    element.u = before.share[i];
    const [x, y, z, w] = before.turns.subarray(4 * i, 4 * i + 4);
    turns.set(after(turnAt(element), [x, y, z, w]), 4 * i);
    size[i] = before.size[i] * sizeAt(element);
  }
  return { ...moved, turns, size };
}
