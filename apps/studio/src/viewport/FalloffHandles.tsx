'use client';

import {
  byAxis,
  baseOf,
  type FalloffShape,
  type Growth,
  GrowthValues,
  isTrack,
  type NumberParam,
  type Resolved,
  type Step,
  stepOf,
  turnedBy,
  turnOf,
  unit,
  type Vec3,
} from '@uvrex/core';
import { ownFrame, setParams, toggleKeys } from '@/state/actions/valueActions';
import { useResults } from '@/state/director/results';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { useProjection } from '../state/director/projection';
import { type ShapeChange, ShapeHandles } from './ShapeHandles';
import { isFree } from './stepValues';
import { TurnRings } from './TurnRings';
import { within } from './within';

/** Radius of the rings that turn copies, pixels. */
const RING = 58;

const PLACE = ['atX', 'atY', 'atZ'] as const;
const TURN = ['turnX', 'turnY', 'turnZ'] as const;
const SIZE = ['sizeX', 'sizeY', 'sizeZ'] as const;

/** The shape of the falloff whose step is open. */
export function FalloffHandles({ growth, step }: { growth: Growth; step: Step }) {
  const scene = useDocument((state) => state.scene);
  const frame = useView((state) => state.frame);
  const space = useOwnSpace(growth);
  let values: Resolved;
  try {
    values = new GrowthValues(growth, scene, ownFrame(growth, frame)).of(stepOf(step.kind)!, step);
  } catch {
    // A formula that fails is told at its field.
    return null;
  }
  const which = String(values.shape);
  const turning = values.drives === 'turn' && <CopyRings growth={growth} step={step} values={values} />;
  if (!['plane', 'ball', 'box'].includes(which))
    return (
      turning && (
        <Overlay role="group" label="Handles of Falloff">
          {turning}
        </Overlay>
      )
    );
  const vector = (names: readonly string[]): Vec3 => byAxis((c) => Number(values[names[c]]));
  const set = (names: readonly string[], to: readonly number[]): void =>
    setParams(
      growth.id,
      step.id,
      Object.fromEntries(names.map((name, i) => [name, Math.round(to[i] * 1e4) / 1e4])),
      `falloff ${names[0]}`,
    );
  const change = ({ centre, rotation, radius, size }: ShapeChange): void => {
    if (centre) set(PLACE, centre);
    if (rotation) set(TURN, rotation);
    if (radius !== undefined) set(['radius'], [radius]);
    if (size) set(SIZE, size);
  };
  const keyed = [...PLACE, ...(which === 'ball' ? ['radius'] : TURN)];
  const here = keyed.every((name) => {
    const track = baseOf(step.params[name]);
    return isTrack(track) && track.keys.some((key) => key.frame === ownFrame(growth, frame));
  });
  const specs = stepOf(step.kind)!.params as Record<string, NumberParam>;
  return (
    <Overlay role="group" label="Handles of Falloff">
      <ShapeHandles
        of="the falloff"
        hue={growth.hue}
        shape={{
          which: which as FalloffShape['which'],
          centre: vector(PLACE),
          rotation: vector(TURN),
          size: which === 'ball' ? [2 * Number(values.radius), 0, 0] : vector(SIZE),
          soft: Number(values.soft),
        }}
        change={change}
        space={space}
        keyed={{ here, toggle: () => toggleKeys(growth.id, step.id, keyed, specs) }}
      />
      {turning}
    </Overlay>
  );
}

const SPINS = ['spinX', 'spinY', 'spinZ'] as const;

/**
 * Rings round one of the copies that turn them all, each about what its angle turns it about: the copy nearest to the middle
 * of the falloff, where it has one.
 */
function CopyRings({ growth, step, values }: { growth: Growth; step: Step; values: Resolved }) {
  const { toWorld } = useOwnSpace(growth);
  const copies = useResults(({ onScreen }) => onScreen.find(({ id }) => id === growth.id)?.shown.copies);
  useProjection((state) => state.drawn);
  const middle = toWorld(byAxis((c) => Number(values[PLACE[c]])));
  const copy = nearestCopy(copies ?? [], middle);
  if (!copy) return null;
  const declaration = stepOf(step.kind)!;
  const [x, , z] = SPINS.map((name) => Number(values[name]));
  // The copy has been turned about Z first, then X, then Y: each axis lies as the turns before it have left it.
  const back = turnOf(0, 0, -z);
  const axes: Vec3[] = [turnedBy(back, [1, 0, 0]), turnedBy(back, turnedBy(turnOf(-x, 0, 0), [0, 1, 0])), [0, 0, 1]];
  return (
    <TurnRings
      centre={copy.place}
      radius={RING}
      hue={growth.hue}
      rings={SPINS.flatMap((name, c) => {
        const { label } = declaration.params[name];
        return isFree(step, name)
          ? [
              {
                name,
                label: `${label} of the copies`,
                mark: label,
                axis: copy.turned(axes[c]),
                value: Number(values[name]),
              },
            ]
          : [];
      })}
      put={(name, value) =>
        setParams(
          growth.id,
          step.id,
          { [name]: within(declaration.params[name] as NumberParam, value) },
          `falloff ${name}`,
        )
      }
    />
  );
}

/** The copy nearest to a place: where it stands, and how its own directions lie in the scene. */
function nearestCopy(
  copies: readonly { matrices: Float32Array }[],
  to: Vec3,
): { place: Vec3; turned: (way: Vec3) => Vec3 } | null {
  let best: { m: Float32Array; off: number } | null = null;
  for (const { matrices } of copies)
    for (let k = 0; k < matrices.length; k += 16) {
      const off = Math.hypot(matrices[k + 12] - to[0], matrices[k + 13] - to[1], matrices[k + 14] - to[2]);
      if (!best || off < best.off) best = { m: matrices.subarray(k, k + 16), off };
    }
  if (!best) return null;
  const { m } = best;
  const columns = [0, 4, 8].map((i): Vec3 => unit([m[i], m[i + 1], m[i + 2]]));
  return {
    place: [m[12], m[13], m[14]],
    turned: (way) => unit(byAxis((c) => columns[0][c] * way[0] + columns[1][c] * way[1] + columns[2][c] * way[2])),
  };
}
