'use client';

import { type KeyboardEvent, useState } from 'react';
import { type Growth, partWay, type Step, type Vec3 } from '@uvrex/core';
import {
  changedNode,
  inCircle,
  type PlacedNode,
  readNodes,
  withNode,
  withoutNode,
  writeNodes,
} from '@uvrex/core/nodes';
import { setParam } from '@/state/actions/valueActions';
import { useView } from '@/state/document/view';
import { type Spot, useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { say } from '@/state/toasts';
import { Grip } from './Grip';
import { PlacingLayer } from './PlacingLayer';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, skinUnder, toScreen, useProjection } from '../state/director/projection';
import { snapUnder, toTenthMillimetre } from './snapping';

/** How near to a point its parent is dropped, pixels. */
const NEAR = 16;
/** Where on the way to its parent the handle of that stands; of points without one, how far below them, pixels. */
const SHARE = 0.35;
const BELOW = 20;

const KEYS = { Delete: 'delete', Backspace: 'delete', '+': 1.1, '=': 1.1, '-': 1 / 1.1 } as const;

/** The rows as points; null while one is typed wrongly. */
function nodesOf(text: unknown): PlacedNode[] | null {
  try {
    return readNodes(String(text));
  } catch {
    return null;
  }
}

/**
 * Points that are put down by hand: clicks add one while they are being placed, which grows from the one that was added or chosen last.
 * Dragged they move; the square beside one, dragged onto another, makes that its parent. Delete takes one away, + and − change its size,
 * 1 to 9 its kind.
 */
export function NodeHandles({ growth, step }: { growth: Growth; step: Step }) {
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const placing = useView(({ placing: now }) => now?.step === step.id);
  const { toOwn, toWorld } = useOwnSpace(growth);
  const [chosen, setChosen] = useState<number | null>(null);
  const [pulled, setPulled] = useState<{ node: number; to: Spot } | null>(null);
  const nodes = nodesOf(step.params.nodes);
  const set = (next: readonly PlacedNode[], merge: string | null = null): void =>
    setParam(growth.id, step.id, 'nodes', writeNodes(next), merge);

  /** The place under the pointer: what it snaps to of other growths, or a form there, or as far off as another place. */
  const under = (spot: Spot, through: Vec3, free: boolean): Vec3 | null => {
    const { camera } = projection;
    const met = free ? null : (snapUnder(spot, growth.id, projection)?.at ?? skinOf(spot));
    const point = met ?? (camera && ontoPlane(spot.x, spot.y, facingPlane(toWorld(through), camera), projection));
    return point && toTenthMillimetre(toOwn(point));
  };
  const skinOf = ({ x, y }: Spot): Vec3 | null => {
    const hit = skinUnder(x, y, projection);
    return hit && hit.growth !== growth.id ? hit.place : null;
  };
  const nearest = (spot: Spot): number | null => {
    let [best, off] = [null as number | null, NEAR];
    nodes?.forEach(({ place }, k) => {
      const dot = toScreen(toWorld(place), projection);
      const away = dot ? Math.hypot(dot.x - spot.x, dot.y - spot.y) : Infinity;
      if (away < off) [best, off] = [k, away];
    });
    return best;
  };
  const drag = useDrag<number>({
    move(node, { at, event }) {
      // It may have been deleted meanwhile, by key or by undo.
      const place = nodes?.[node] && under(at, nodes[node].place, event.altKey);
      if (place) set(changedNode(nodes!, node, { place }), 'node');
    },
    click: (node) => setChosen(chosen === node ? null : node),
  });
  const pull = useDrag<number, { to: Spot }>({
    take: (_, { at }) => ({ to: at }),
    move(node, { at }, kept) {
      kept.to = at;
      setPulled({ node, to: at });
    },
    end(node, { to }, ending) {
      setPulled(null);
      if (ending === 'taken back' || !nodes?.[node]) return;
      const parent = nearest(to) ?? -1;
      if (parent === node || parent === nodes[node].parent) return;
      if (inCircle(nodes, node, parent))
        say({ tone: 'info', text: `Point ${node + 1} cannot grow from what grows from it.` });
      else set(changedNode(nodes, node, { parent }));
    },
  });
  const onKey = (event: KeyboardEvent, node: number): void => {
    if (!nodes) return;
    if (/^[1-9]$/.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey) {
      event.preventDefault();
      event.stopPropagation();
      set(changedNode(nodes, node, { kind: Number(event.key) }));
      return;
    }
    const way = keyStep(event, KEYS);
    if (way === 'delete') {
      setChosen(null);
      set(withoutNode(nodes, node));
    } else if (way) set(changedNode(nodes, node, { size: Number((nodes[node].size * way).toFixed(3)) }), 'size');
  };
  const put = (spot: Spot): void => {
    if (!nodes) {
      say({ tone: 'info', text: 'Mend the row that is typed wrongly first.' });
      return;
    }
    const parent = chosen !== null && chosen < nodes.length ? chosen : nodes.length - 1;
    const place = under(spot, nodes[parent]?.place ?? [0, 0, 0], false);
    if (!place) return;
    set(withNode(nodes, place, parent));
    setChosen(nodes.length);
  };

  return (
    <PlacingLayer label="Placed points" id="node-layer" placing={placing} put={put}>
      {nodes?.map(({ place, parent }, k) => {
        const dot = toScreen(toWorld(place), projection);
        if (!dot) return null;
        const from = parent < 0 ? null : toScreen(toWorld(nodes[parent].place), projection);
        const between = parent < 0 ? null : toScreen(toWorld(partWay(place, nodes[parent].place, SHARE)), projection);
        const square = between ?? { x: dot.x, y: dot.y + BELOW };
        const end = pulled?.node === k ? pulled.to : from;
        return (
          <g key={k}>
            {end && (
              <line
                x1={dot.x}
                y1={dot.y}
                x2={end.x}
                y2={end.y}
                stroke={growth.hue}
                strokeWidth={1.2}
                strokeDasharray={pulled?.node === k ? undefined : '3 4'}
                pointerEvents="none"
              />
            )}
            <rect
              x={square.x - 4}
              y={square.y - 4}
              width={8}
              height={8}
              tabIndex={0}
              role="button"
              aria-label={`Parent of point ${k + 1}: ${parent < 0 ? 'none' : `point ${parent + 1}`}`}
              fill={INK.deep}
              stroke={growth.hue}
              strokeWidth={1.5}
              pointerEvents="all"
              cursor="grab"
              {...pull(k)}
            />
            <Grip
              at={dot}
              label={`Point ${k + 1} of ${nodes.length}`}
              r={chosen === k ? 7 : 5.5}
              aria-pressed={chosen === k}
              fill={chosen === k ? INK.front : INK.deep}
              stroke={growth.hue}
              onKeyDown={(event) => onKey(event, k)}
              {...drag(k)}
            />
          </g>
        );
      })}
    </PlacingLayer>
  );
}
