import { easeBackOut } from 'd3-ease';
import { type PlacedNode, readNodes } from '../../curves/web/placedNodes';
import { emptyColumns, oneNumber } from '../../geometry/attributes';
import { type Form, type Points, POINTS } from '../../geometry/form';
import { NO_PARENT, type Paths, pathsFrom } from '../../geometry/paths';
import { distance, partWay, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import type { PlacedPointsParams } from './placedPoints';
import { startWith } from './startWith';
import { startWithPoints } from './startWithPoints';

/** Points on their way out from their parents, and a line to each. */
export async function runPlacedPoints(form: Form, p: PlacedPointsParams, context: StepContext): Promise<Form> {
  const nodes = readNodes(p.nodes);
  if (nodes.length === 0) throw new Problem('There are no points.', 'Press Place, then click in the view.');
  context.claim('points', nodes.length * p.points, 'Points per line');
  const order = outwards(nodes);
  const travelled = p.order === 'rows' ? rowByRow(nodes, p) : afterParents(nodes, order, p.grown);
  const eased = overshooting(p.overshoot);
  const now: Vec3[] = [];
  for (const k of order) {
    const { place, parent } = nodes[k];
    now[k] = parent < 0 ? place : partWay(now[parent], place, eased(travelled[k]));
  }
  const there = nodes.flatMap((_, k) => (travelled[k] > 0 ? [k] : []));
  const woven = await startWith(form, linesOf(nodes, now, there, p.points));
  return startWithPoints(woven, pointsOf(nodes, now, there, travelled, generationsOf(nodes, order)));
}

/** The points, each behind its parent. */
function outwards(nodes: readonly PlacedNode[]): number[] {
  const children: number[][] = nodes.map(() => []);
  const order: number[] = [];
  nodes.forEach(({ parent }, k) => (parent < 0 ? order : children[parent]).push(k));
  for (let i = 0; i < order.length; i++) order.push(...children[order[i]]);
  return order;
}

function generationsOf(nodes: readonly PlacedNode[], order: readonly number[]): number[] {
  const generations: number[] = [];
  for (const k of order) generations[k] = nodes[k].parent < 0 ? 0 : generations[nodes[k].parent] + 1;
  return generations;
}

/** The share of its way that each has travelled, where each sets out when its parent has arrived, all at the same pace. */
function afterParents(nodes: readonly PlacedNode[], order: readonly number[], grown: number): number[] {
  const [from, to]: number[][] = [[], []];
  for (const k of order) {
    const { place, parent } = nodes[k];
    from[k] = parent < 0 ? 0 : to[parent];
    to[k] = parent < 0 ? 0 : from[k] + distance(place, nodes[parent].place);
  }
  const front = grown * Math.max(...to);
  // Those that grow from none are there from the beginning; where all do, they come up together.
  return nodes.map((_, k) => {
    if (to[k] === from[k]) return front > 0 ? (front >= from[k] ? 1 : 0) : Math.max(...to) > 0 ? 0 : grown;
    return Math.min(1, Math.max(0, (front - from[k]) / (to[k] - from[k])));
  });
}

/** The same where one sets out after another. */
function rowByRow(nodes: readonly PlacedNode[], { grown, overlap }: PlacedPointsParams): number[] {
  const apart = 1 - overlap;
  const whole = 1 + (nodes.length - 1) * apart;
  return nodes.map((_, k) => Math.min(1, Math.max(0, grown * whole - k * apart)));
}

/**
 * Eases out past the end and back, by so much of the way at most. With s, the curve 1 + (s + 1)(t − 1)³ + s(t − 1)² is highest where
 * its slope is nothing, 4s³ / 27(s + 1)² past its end.
 */
export function overshooting(most: number): (t: number) => number {
  const past = (s: number): number => (4 * s ** 3) / (27 * (s + 1) ** 2);
  let [low, high] = [0, 20];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (past(middle) < most) low = middle;
    else high = middle;
  }
  return easeBackOut.overshoot(low);
}

/** A line from each point's parent to it, of those that are under way or there. */
function linesOf(nodes: readonly PlacedNode[], now: readonly Vec3[], there: readonly number[], points: number): Paths {
  const grown = there.filter((k) => nodes[k].parent >= 0);
  const paths = pathsFrom(
    grown.map((k) => ({
      id: k,
      positions: Array.from({ length: points }, (_, i) =>
        partWay(now[nodes[k].parent], now[k], i / (points - 1)),
      ).flat(),
    })),
  );
  const has = new Set(grown);
  return {
    ...paths,
    parent: Uint32Array.from(grown, (k) => (has.has(nodes[k].parent) ? nodes[k].parent : NO_PARENT)),
    attach: new Float32Array(grown.length).fill(1),
  };
}

function pointsOf(
  nodes: readonly PlacedNode[],
  now: readonly Vec3[],
  there: readonly number[],
  travelled: readonly number[],
  generations: readonly number[],
): Points {
  const points: Points = { ...emptyColumns(POINTS, 'point', there.length), life: null, age: null, named: {} };
  there.forEach((node, k) => {
    points.positions.set(now[node], 3 * k);
    points.turns[4 * k + 3] = 1;
    points.size[k] = nodes[node].size * travelled[node];
    points.ids[k] = points.dice[k] = node;
    points.share[k] = nodes.length > 1 ? node / (nodes.length - 1) : 0;
  });
  const kept = (of: (node: number) => number): Float32Array => Float32Array.from(there, of);
  return {
    ...points,
    named: {
      kind: oneNumber(
        'point',
        kept((node) => nodes[node].kind),
      ),
      generation: oneNumber(
        'point',
        kept((node) => generations[node]),
      ),
    },
  };
}
