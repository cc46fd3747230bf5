import { mapped } from '../../geometry/filled';
import {
  gabrielLinks,
  hubDistances,
  hubLinks,
  type Links,
  linksWithin,
  nearestLinks,
  neighbourLinks,
  shortestTree,
  uniqueLinks,
} from '../../curves/web/links';
import { tipsOf } from '../../curves/tips';
import { readLinks, parseMovedNodes } from '../../curves/web/byHand';
import { readTable, type Table } from '../../tables/readTable';
import { noise3 } from '../../fields/noise';
import { hash, random } from '../../fields/random';
import { smoothstep } from '../../fields/smoothstep';
import { pointsOf } from '../../geometry/formPoints';
import { emptyColumns, type Named, oneNumber } from '../../geometry/attributes';
import { type Form, type Points, POINTS } from '../../geometry/form';
import { NO_PARENT, type Paths, pathsFrom } from '../../geometry/paths';
import { NO_TURN } from '../../geometry/turns';
import { add, at, cross, distance, perpendicular, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { modulo } from '../place/turnPattern';
import { progressOf } from '../shape/motion';
import { startWith } from './startWith';
import { startWithPoints } from './startWithPoints';
import type { WebParams } from './web';

/** Points of a link that is not straight. */
const PIECES = 14;

/** What hangs together how, and how far each node is from the hub along it: the same at every frame. */
interface Plan {
  links: Links;
  away: Float64Array;
}
/** Plans kept: where nodes move by themselves each frame would add one. */
const KEPT = 8;
const plans = new Map<string, Plan>();

/** Nodes and links, as far as they have grown. */
export async function runWeb(form: Form, p: WebParams, context: StepContext): Promise<Form> {
  const laid = await nodesOf(p, context);
  if (laid.length < 2)
    throw new Problem('A web needs two nodes or more.', 'Raise Count, or choose a growth with points.');
  const listed = p.pairs === null ? [] : linksOf(readTable(await context.file(p.pairs)));
  const own = [...readLinks(p.own), ...listed].filter(([, b]) => b < laid.length);
  // Nodes that are moved by hand keep the links that they have where they are laid.
  const rest = [...laid];
  for (const [node, by] of parseMovedNodes(p.moved)) if (node < rest.length) rest[node] = add(rest[node], by);
  const { links, away } = await planOf(laid, rest, own, p, context);
  const turned = p.turning === 0 ? rest : wentRound(rest, p, context);
  const nodes = p.drift > 0 ? drifted(turned, p, context) : turned;
  // A link that two fronts come to grows from the nearer of its nodes all the way: it may be done after the last node.
  const done = ([a, b]: readonly [number, number]): number => Math.min(away[a], away[b]) + distance(rest[a], rest[b]);
  const furthest = Math.max(1e-9, ...away, ...links.map(done));
  // Once it is through, the last nodes still swell.
  const front = p.grown * (furthest + p.swell);
  await context.yieldNow();
  const straight = p.shape === 'straight' && p.pulses === 0;
  const pulse = p.pulses > 0 ? pulseOf(p, context) : null;
  context.claim('points', links.length * (straight ? 2 : PIECES + 1), 'Count, or the number of links');
  const sources: { positions: number[]; id: number; whole: number; from: number }[] = [];
  for (const [k, [one, other]] of links.entries()) {
    if (k % 512 === 0) await context.yieldNow();
    const [a, b] = away[one] <= away[other] ? [one, other] : [other, one];
    const whole = distance(rest[a], rest[b]);
    const share = p.grown <= 0 ? 0 : Math.min(1, (front - away[a]) / Math.max(1e-9, whole));
    if (share <= 1e-6) continue;
    const id = hash(context.seed, one + 1, other + 1);
    sources.push({ positions: course(nodes[a], nodes[b], share, id, p), id, whole, from: away[a] });
  }
  await context.yieldNow();
  const points = nodePoints(nodes, away, front, p, pulse);
  await context.yieldNow();
  const woven = await startWith(form, pathsOf(sources, pulse));
  return startWithPoints(woven, points);
}

function pathsOf(sources: readonly { positions: number[]; id: number; from: number }[], pulse: Pulse | null): Paths {
  const taken = new Set<number>();
  const named = sources.map((source) => {
    let { id } = source;
    while (taken.has(id) || id === NO_PARENT) id = (id + 1) >>> 0;
    taken.add(id);
    return { ...source, id };
  });
  const paths = pathsFrom(named);
  const hub = new Float32Array(paths.s.length);
  named.forEach(({ from }, p) => {
    for (let i = paths.offsets[p]; i < paths.offsets[p + 1]; i++) hub[i] = from + paths.s[i];
  });
  return { ...paths, named: awayFromHub(hub, pulse) };
}

/** How bright pulses are so far from the hub, 0..1. */
type Pulse = (away: number) => number;

/** Pulses as they are now: a head that rises quickly, and a tail. */
function pulseOf(p: WebParams, context: StepContext): Pulse {
  const { passed } = progressOf(p.pulseSpeed, p.loop, context);
  const head = 0.2 * p.pulseLength;
  return (away) => {
    // Metres behind the head of the pulse that is to come here next, or has come last.
    const behind = p.pulses * modulo(passed - away / p.pulses, 1);
    if (behind < p.pulseLength) return 1 - behind / p.pulseLength;
    return Math.max(0, 1 - (p.pulses - behind) / head);
  };
}

/** What points know of their distance from the hub, and of pulses. */
function awayFromHub(hub: Float32Array, pulse: Pulse | null): Named {
  return { hub: oneNumber('point', hub), ...(pulse ? { pulse: oneNumber('point', hub.map(pulse)) } : {}) };
}

async function nodesOf(p: WebParams, context: StepContext): Promise<Vec3[]> {
  if (p.where === 'growth' || p.where === 'tips') {
    if (p.growth === null)
      throw new Problem('No growth is chosen.', 'Choose the growth at whose points the nodes are.');
    const other = await context.other('growth');
    if (p.where === 'tips')
      return (other.paths ? tipsOf(other.paths) : []).slice(0, p.count).map(({ position }) => position);
    const flat = other.points ? other.points.positions : pointsOf(other);
    const all = flat.length / 3;
    const count = Math.min(p.count, all);
    // Evenly taken where there are more than are wanted.
    return Array.from({ length: count }, (_, k) => at(flat, Math.floor((k * all) / count)));
  }
  const { seed } = context;
  const size: Vec3 = [p.width, p.height, p.depth];
  const found: Vec3[] = [];
  for (let dart = 0; found.length < p.count; dart++) {
    const u = [0, 1, 2].map((c) => 2 * random(seed, dart, c) - 1);
    if (p.where === 'ball' && Math.hypot(...u) > 1) continue;
    found.push([p.atX + (u[0] * size[0]) / 2, p.atY + (u[1] * size[1]) / 2, p.atZ + (u[2] * size[2]) / 2]);
  }
  return found;
}

/** Links by the numbers of their nodes, from 1, in a table's first two columns; rows without two different ones are passed over. */
function linksOf({ columns: [from, to], rows }: Table): Links {
  if (!to) throw new Problem('The table of links has one column only.', 'Give each row the numbers of two nodes.');
  const links: (readonly [number, number])[] = [];
  for (let row = 0; row < rows; row++) {
    const [a, b] = [Math.min(from[row], to[row]) - 1, Math.max(from[row], to[row]) - 1];
    if (a >= 0 && a !== b && Number.isInteger(a) && Number.isInteger(b)) links.push([a, b]);
  }
  return links;
}

/**
 * @param laid nodes where they are laid, by which they are linked
 * @param nodes where they stand
 * @param own links that are put in by hand
 */
async function planOf(
  laid: readonly Vec3[],
  nodes: readonly Vec3[],
  own: Links,
  p: WebParams,
  context: StepContext,
): Promise<Plan> {
  const key = JSON.stringify([p.links, p.each, p.longest, p.hubX, p.hubY, p.hubZ, p.own, p.pairs, p.moved, laid]);
  let plan = plans.get(key);
  if (plan) return plan;
  const yieldNow = (): Promise<void> => context.yieldNow();
  const place: Vec3 = [p.hubX, p.hubY, p.hubZ];
  const hub = nodes.reduce((best, node, k) => (distance(node, place) < distance(nodes[best], place) ? k : best), 0);
  const made = await {
    nearest: () => nearestLinks(laid, p.each, p.longest, yieldNow),
    within: () => linksWithin(laid, p.longest, yieldNow),
    tree: () => shortestTree(laid, yieldNow),
    between: () => gabrielLinks(laid, p.longest, yieldNow),
    delaunay: () => neighbourLinks(laid, p.longest, yieldNow),
    hub: () => Promise.resolve(hubLinks(laid, hub)),
    own: () => Promise.resolve<Links>([]),
  }[p.links]();
  await yieldNow();
  const links = own.length > 0 ? uniqueLinks([...made, ...own]) : made;
  plan = { links, away: hubDistances(nodes, links, hub) };
  if (plans.size >= KEPT) plans.clear();
  plans.set(key, plan);
  return plan;
}

/** Nodes that have gone round the upright axis through their middle, each at a rate of its own. */
function wentRound(nodes: readonly Vec3[], p: WebParams, context: StepContext): Vec3[] {
  const middle = (c: number): number => nodes.reduce((sum, node) => sum + node[c], 0) / nodes.length;
  const [x, z] = [middle(0), middle(2)];
  return nodes.map((node, k) => {
    const rate = p.turning * (1 + p.turnsVary * (2 * random(context.seed, k, 8) - 1));
    const angle = 2 * Math.PI * progressOf(rate, p.loop, context).passed;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    return [x + c * (node[0] - x) + s * (node[2] - z), node[1], z - s * (node[0] - x) + c * (node[2] - z)];
  });
}

/** Nodes where they have drifted to, each by a noise and at a rate of its own. */
function drifted(nodes: readonly Vec3[], p: WebParams, context: StepContext): Vec3[] {
  const { seed } = context;
  const push = new Float64Array(3);
  return nodes.map((node, k) => {
    const { passed, period } = progressOf(p.rate * (0.6 + 0.8 * random(seed, k, 7)), p.loop, context);
    noise3(k * 7.31, k * 3.17, 0.5, passed, { detail: 1, roughness: 0.5, seed: seed + k, period }, push);
    return [node[0] + p.drift * push[0], node[1] + p.drift * push[1], node[2] + p.drift * push[2]];
  });
}

/** A link as far as it has come. */
function course(a: Vec3, b: Vec3, share: number, id: number, p: WebParams): number[] {
  const whole = sub(b, a);
  const end = (t: number): Vec3 => add(a, scale(whole, t));
  if (p.shape === 'straight' && p.pulses === 0) return [...a, ...end(share)];
  const long = distance(a, b);
  const way = unit(whole);
  const side = perpendicular(way);
  const turn = 2 * Math.PI * random(id, 1);
  const out: Vec3 =
    p.shape === 'sag' ? [0, -1, 0] : add(scale(side, Math.cos(turn)), scale(cross(way, side), Math.sin(turn)));
  return Array.from({ length: PIECES + 1 }, (_, i) => {
    const t = (share * i) / PIECES;
    return p.shape === 'straight' ? end(t) : add(end(t), scale(out, 4 * p.bow * long * t * (1 - t)));
  }).flat();
}

/** The nodes that the front has come to, as large as they have swollen. */
function nodePoints(
  nodes: readonly Vec3[],
  away: Float64Array,
  front: number,
  p: WebParams,
  pulse: Pulse | null,
): Points {
  const sizes = Array.from(away, (d) =>
    p.grown <= 0 || front < d ? 0 : p.swell > 0 ? smoothstep((front - d) / p.swell) : 1,
  );
  const there = [...nodes.keys()].filter((k) => sizes[k] > 0);
  return {
    ...emptyColumns(POINTS, 'point', there.length),
    positions: Float32Array.from(there.flatMap((k) => nodes[k])),
    turns: Float32Array.from(there.flatMap(() => [...NO_TURN])),
    size: mapped(Float32Array, there, (k) => sizes[k]),
    ids: Uint32Array.from(there),
    dice: Uint32Array.from(there),
    share: mapped(Float32Array, there, (k) => k / Math.max(1, nodes.length - 1)),
    named: awayFromHub(
      mapped(Float32Array, there, (k) => away[k]),
      pulse,
    ),
  };
}
