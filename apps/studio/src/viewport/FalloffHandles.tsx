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
  type Vec3,
} from '@uvrex/core';
import { ownFrame, setParams, toggleKeys } from '@/state/actions/valueActions';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { type ShapeChange, ShapeHandles } from './ShapeHandles';

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
  if (!['plane', 'ball', 'box'].includes(which)) return null;
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
    <Overlay role="group" label="Falloff">
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
    </Overlay>
  );
}
