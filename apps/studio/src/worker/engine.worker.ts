import * as Comlink from 'comlink';
import {
  boundsOf,
  Cancelled,
  countsOf,
  Evaluator,
  type Form,
  type FrameResult,
  type GrowthResult,
  type Scene,
  grownLength,
  measureSeam,
  shortestLoop,
  type Wanted,
} from '@uvrex/core';
import { type EngineApi, type EngineNews, type GrowthPayload, type Shown } from './protocol';

declare const self: DedicatedWorkerGlobalScope;

const tell = (news: EngineNews): void => self.postMessage(news);

// A message to oneself is the quickest way to let the other messages in.
const channel = new MessageChannel();
let told = 0;
const pause = (): Promise<void> => {
  const now = performance.now();
  if (now - told > 250) {
    told = now;
    tell({ news: 'alive' });
  }
  return new Promise((resume) => {
    channel.port1.onmessage = () => resume();
    channel.port2.postMessage(null);
  });
};

const evaluator = new Evaluator({
  now: () => performance.now(),
  pause,
  stage: (growth, step) => tell({ news: 'stage', growth: growth.id, step: step.id }),
});

let scene: Scene | null = null;
const tickets = new Map<number, { aborted: boolean }>();
const held = new Set<string>();

const api: EngineApi = {
  load(next) {
    scene = next;
  },
  async evaluate(ticket, frame) {
    const result = await evaluated(ticket, frame);
    if (!result) return null;
    const buffers: ArrayBuffer[] = [];
    const growths = result.growths.map((growth) => payload(growth, buffers));
    return Comlink.transfer({ frame, milliseconds: result.milliseconds, growths }, buffers);
  },
  async file(ticket, frame, format) {
    const result = await evaluated(ticket, frame);
    if (!result || !scene) return null;
    const { growths, name } = scene;
    const parts = result.growths.map(({ id, form, notices }) => {
      const growth = growths.find((entry) => entry.id === id)?.name ?? id;
      if (!form) throw new Error(`“${growth}” has a problem: ${notices[0]?.what ?? ''} Mend it, or hide the growth.`);
      return { ...form, name: growth };
    });
    // Loaded when first asked for: most sessions write no geometry.
    const { glbBytes, objText } = await import('@uvrex/formats');
    const bytes =
      format === 'glb' ? await glbBytes(parts, name) : new TextEncoder().encode([...objText(parts)].join(''));
    return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
  seam: (ticket) => under(ticket, (of, wanted) => measureSeam(evaluator, of, wanted)),
  loop: (ticket) => under(ticket, async (of, wanted) => ({ end: await shortestLoop(evaluator, of, wanted) })),
  cancel(ticket) {
    const wanted = tickets.get(ticket);
    if (wanted) wanted.aborted = true;
  },
  forget(keys) {
    for (const key of keys) held.delete(key);
  },
};

/** One evaluation under its ticket; null when it was given up. */
const evaluated = (ticket: number, frame: number): Promise<FrameResult | null> =>
  under(ticket, (of, wanted) => evaluator.evaluate(of, frame, wanted));

/** Work on the loaded scene under a ticket; null when it was given up. */
async function under<T>(ticket: number, work: (scene: Scene, wanted: Wanted) => Promise<T>): Promise<T | null> {
  if (!scene) return null;
  const wanted = { aborted: false };
  tickets.set(ticket, wanted);
  try {
    return await work(scene, wanted);
  } catch (error) {
    if (error instanceof Cancelled) return null;
    throw error;
  } finally {
    tickets.delete(ticket);
  }
}

function payload({ id, key, form, share, notices, costs }: GrowthResult, buffers: ArrayBuffer[]): GrowthPayload {
  const common = { id, key, share, length: grownLength(form?.paths ?? null), notices, costs, failed: form === null };
  if (!form) return { ...common, counts: { points: 0, faces: 0, copies: 0 }, bounds: null, shown: null };
  const measured = { ...common, counts: countsOf(form), bounds: boundsOf(form) };
  if (held.has(key)) return { ...measured, shown: null };
  held.add(key);
  return { ...measured, shown: shownOf(form, buffers) };
}

/** Copies of what the screen draws: the originals stay in the evaluator's cache. */
function shownOf({ mesh, paths, surface }: Form, buffers: ArrayBuffer[]): Shown {
  const copy = <T extends Float32Array | Uint32Array | Uint8Array>(array: T): T => {
    const made = array.slice() as T;
    buffers.push(made.buffer as ArrayBuffer);
    return made;
  };
  return {
    mesh: mesh && {
      positions: copy(mesh.positions),
      normals: copy(mesh.normals),
      indices: copy(mesh.indices),
      colors: mesh.colors && copy(mesh.colors),
      glow: mesh.glow && copy(mesh.glow),
    },
    paths: paths && { positions: copy(paths.positions), offsets: copy(paths.offsets), closed: copy(paths.closed) },
    surface,
  };
}

Comlink.expose(api);
