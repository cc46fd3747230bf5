'use client';

import { type KeyboardEvent, type MouseEvent, useState } from 'react';
import { Vector3 } from 'three';
import { type Anchor, at, catmullRom, distance, type Growth, type Step, type Vec3 } from '@uvrex/core';
import { setParam } from '@/state/actions/valueActions';
import { endEdit } from '@/state/document/document';
import { type Spot, useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { Grip } from './Grip';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';
import { snapUnder, toTenthMillimetre } from './snapping';

const PER_SEGMENT = 16;

/**
 * The anchors of the drawn path whose step is open: drag to move, double-click the line to add one, Delete to remove
 * the focused one, arrow keys to nudge it.
 */
export function AnchorHandles({ growth, step }: { growth: Growth; step: Step }) {
  return (
    <Handles
      growth={growth}
      step={step.id}
      anchors={step.params.anchors as Anchor[]}
      closed={step.params.closed === true}
    />
  );
}

/** What keys do to the anchor that has the focus: which way it goes, as it is seen; or that it goes away. */
const KEYS = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  Delete: 'delete',
  Backspace: 'delete',
} as const;

const placeOf = ([x, y, z]: Anchor): Vec3 => [x, y, z];

interface Props {
  growth: Growth;
  step: string;
  anchors: Anchor[];
  closed: boolean;
}

function Handles({ growth, step, anchors, closed }: Props) {
  const { hue } = growth;
  const { toOwn, toWorld } = useOwnSpace(growth);
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const [focused, setFocused] = useState<number | null>(null);

  const set = (next: Anchor[], merge: string | null = null): void => setParam(growth.id, step, 'anchors', next, merge);
  /** The place in the growth's own space that is under a place in the view, as far off as another of its. */
  const under = ({ x, y }: Spot, through: Vec3): Vec3 | null => {
    const { camera } = projection;
    const point = camera && ontoPlane(x, y, facingPlane(toWorld(through), camera), projection);
    return point && toTenthMillimetre(toOwn(point));
  };
  /** An anchor elsewhere: its size and lean stay. */
  const replace = (i: number, [x, y, z]: Vec3): Anchor[] =>
    anchors.map((anchor, k) => (k === i ? ([x, y, z, ...anchor.slice(3)] as unknown as Anchor) : anchor));

  const drag = useDrag<number>({
    move(i, { at, event }) {
      // It may have been deleted meanwhile, by key or by undo.
      if (!anchors[i]) return;
      // It meets what is under it of other growths; with Alt it goes free.
      const met = event.altKey ? null : snapUnder(at, growth.id, projection);
      const point = met ? toTenthMillimetre(toOwn(met.at)) : under(at, placeOf(anchors[i]));
      if (point) set(replace(i, point), 'anchor');
    },
  });
  const onKey = (event: KeyboardEvent, i: number): void => {
    const way = keyStep(event, KEYS);
    if (way === 'delete') {
      if (anchors.length > 2) set(anchors.filter((_, k) => k !== i));
      return;
    }
    if (!way || !projection.camera) return;
    const [right, up] = [new Vector3(), new Vector3()];
    projection.camera.matrixWorld.extractBasis(right, up, new Vector3());
    const by = event.shiftKey ? 0.1 : 0.01;
    const moved = new Vector3(...toWorld(placeOf(anchors[i])))
      .addScaledVector(right, way[0] * by)
      .addScaledVector(up, way[1] * by);
    set(replace(i, toOwn([moved.x, moved.y, moved.z])), 'nudge');
  };

  const curve =
    anchors.length > 1
      ? catmullRom(anchors.flatMap(placeOf), PER_SEGMENT, closed && anchors.length > 2)
      : new Float64Array();
  const dots = Array.from({ length: curve.length / 3 }, (_, i) => toScreen(toWorld(at(curve, i)), projection));
  const line = dots.flatMap((dot) => (dot ? [`${dot.x.toFixed(1)},${dot.y.toFixed(1)}`] : [])).join(' ');

  /** Puts an anchor in where the line was double-clicked. */
  const insert = (event: MouseEvent<SVGElement>): void => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const near = dots.map((dot) => (dot ? Math.hypot(dot.x - x, dot.y - y) : Infinity));
    const nearest = near.indexOf(Math.min(...near));
    const segment = Math.min(Math.floor(nearest / PER_SEGMENT), closed ? anchors.length - 1 : anchors.length - 2);
    const point = under({ x, y }, at(curve, nearest));
    if (point && anchors.every((anchor) => distance(placeOf(anchor), point) > 1e-4))
      set([...anchors.slice(0, segment + 1), point, ...anchors.slice(segment + 1)]);
  };

  return (
    <Overlay role="group" label="Anchors">
      <polyline points={line} fill="none" stroke={hue} strokeWidth={1.2} strokeDasharray="3 4" opacity={0.8} />
      <polyline
        points={line}
        fill="none"
        stroke="transparent"
        strokeWidth={14}
        pointerEvents="stroke"
        cursor="copy"
        data-testid="anchor-line"
        onDoubleClick={insert}
      />
      {anchors.map((anchor, i) => {
        const dot = toScreen(toWorld(placeOf(anchor)), projection);
        if (!dot) return null;
        return (
          <Grip
            key={i}
            at={dot}
            label={`Anchor ${i + 1} of ${anchors.length}`}
            r={focused === i ? 7 : 5.5}
            fill={focused === i ? INK.front : INK.deep}
            stroke={focused === i ? INK.text : hue}
            onFocus={() => setFocused(i)}
            onBlur={() => {
              setFocused(null);
              endEdit();
            }}
            onKeyDown={(event) => onKey(event, i)}
            {...drag(i)}
          />
        );
      })}
    </Overlay>
  );
}
