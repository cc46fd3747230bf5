import * as Comlink from 'comlink';
import {
  boundsOf,
  pathsAhead,
  shareStructure,
  wholeBoundsOf,
  Cancelled,
  clashesOf,
  type Copies,
  countsOf,
  emptyForm,
  Evaluator,
  fitOf,
  type Form,
  type FrameResult,
  type GrowthResult,
  type Scene,
  type ShippedId,
  grownLength,
  measureSeam,
  shortestLoop,
  trailOf,
  type Wanted,
} from '@uvrex/core';
import { db } from '@/store/db';
import { type Ball, ballRound } from './boundingSphere';
import { type Crossing, type Draft, Sender } from './columns';
import { placedCopies } from './matrices';
import { SkinTextures } from './skinTextures';
import type { Bounds, EngineApi, EngineNews, FitReport, SentGrowth, Shown } from './protocol';
import { tipsOf } from './glowTips';

declare const self: DedicatedWorkerGlobalScope;

const tell = (news: EngineNews): void => self.postMessage(news);

// A message to oneself is the quickest way to let the other messages in.
const channel = new MessageChannel();
/** Whoever pauses, in the order in which they go on: two pieces of work may be under way. */
const resumes: (() => void)[] = [];
let told = 0;
const pause = (): Promise<void> => {
  const now = performance.now();
  if (now - told > 250) {
    told = now;
    tell({ news: 'alive' });
  }
  return new Promise((resume) => {
    resumes.push(resume);
    channel.port2.postMessage(null);
  });
};
channel.port1.onmessage = () => resumes.shift()?.();

const evaluator = new Evaluator({
  now: () => performance.now(),
  pause,
  stage: (growth, step) => tell({ news: 'stage', growth: growth.id, step: step.id }),
  shipped,
  file: storedFile,
});

/** Files of scenes, read from the device's store once each. */
const stored = new Map<string, Promise<Uint8Array | undefined>>();

function storedFile(id: string): Promise<Uint8Array | undefined> {
  let file = stored.get(id);
  if (!file) {
    file = db.files.get(id).then((entry) => entry?.bytes);
    stored.set(id, file);
    // What is not there now may be there later.
    void file.then(
      (bytes) => bytes ?? stored.delete(id),
      () => stored.delete(id),
    );
  }
  return file;
}

/** Where the files that come with Uvrex are served: written out, as the bundler needs it. Each is fetched once. */
const SHIPPED: Record<ShippedId, URL> = {
  bricolage: new URL('../../../../examples/assets/bricolage-grotesque-800.woff', import.meta.url),
  'reef-rock': new URL('../../../../examples/assets/reef-rock.ply', import.meta.url),
  propeller: new URL('../../../../examples/assets/propeller.ply', import.meta.url),
  figurehead: new URL('../../../../examples/assets/figurehead.ply', import.meta.url),
  'reef-tides': new URL('../../../../examples/assets/reef-tides.csv', import.meta.url),
  'reef-leaf': new URL('../../../../examples/assets/reef-leaf.png', import.meta.url),
  'reef-relief': new URL('../../../../examples/assets/reef-relief.png', import.meta.url),
  'reef-leaves': new URL('../../../../examples/assets/reef-leaves.png', import.meta.url),
};
const fetched = new Map<ShippedId, Promise<Uint8Array>>();

function shipped(name: ShippedId): Promise<Uint8Array> {
  let file = fetched.get(name);
  if (!file) {
    file = fetch(SHIPPED[name]).then(async (response) => {
      if (!response.ok) throw new Error(`the file “${name}” that comes with Uvrex could not be fetched`);
      return new Uint8Array(await response.arrayBuffer());
    });
    fetched.set(name, file);
    file.catch(() => fetched.delete(name));
  }
  return file;
}

let scene: Scene | null = null;
const pictures = new SkinTextures((file) => evaluator.bytesOf(scene!, file));
const tickets = new Map<number, Ticket>();
const sender = new Sender();

const api: EngineApi = {
  load(next) {
    // What has not changed is what it was, though every message brings a copy.
    scene = shareStructure(next, scene ?? undefined);
  },
  limit(cacheBytes) {
    evaluator.keepAtMost(cacheBytes);
  },
  async evaluate(ticket, frame, limit) {
    const result = await evaluated(ticket, frame, limit);
    if (!result) return null;
    await pictures.read(result.growths.map(({ form }) => form));
    const buffers: ArrayBuffer[] = [];
    const growths = result.growths.map((growth) => payload(growth, buffers));
    const items = result.growths.flatMap(({ id, form }) => itemsOf(id, form, buffers));
    return Comlink.transfer({ frame, milliseconds: result.milliseconds, growths, items }, buffers);
  },
  async file(ticket, frame, format) {
    const result = await evaluated(ticket, frame);
    if (!result || !scene) return null;
    // Loaded when first asked for: most sessions write no geometry.
    const { geometryFormat, partsOf } = await import('@uvrex/formats');
    const bytes = await geometryFormat(format).write(frame, partsOf(scene, frame, result.growths), scene, (file) =>
      evaluator.bytesOf(scene!, file),
    );
    return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
  seam: (ticket) => under(ticket, (of, wanted) => measureSeam(evaluator, of, wanted)),
  loop: (ticket) => under(ticket, async (of, wanted) => ({ end: await shortestLoop(evaluator, of, wanted) })),
  fit: (ticket, frame) =>
    under(ticket, async (of, wanted) => {
      const { growths } = await evaluator.evaluate(of, frame, wanted);
      const reports: FitReport[] = [];
      for (const { id, form } of growths) {
        const copies = form?.copies;
        if (!copies || copies.ids.length < 2) continue;
        const yieldNow = yielding(wanted);
        const fit = await fitOf(copies, yieldNow);
        const { pairs, complete } = await clashesOf(copies, yieldNow);
        fit.sort((a, b) => a.gap - b.gap);
        reports.push({ growth: id, fit, clashes: pairs, complete });
      }
      return reports;
    }),
  trail: (ticket, target) =>
    under(ticket, (of, wanted) => trailOf(evaluator, of, target, wanted, (share) => tell({ news: 'progress', share }))),
  async sheets(ticket, frame, growth) {
    const result = await evaluated(ticket, frame);
    const found = result?.growths.find(({ id }) => id === growth);
    if (!found?.form) return null;
    // Loaded when first asked for: most sessions look at no table.
    const { sheetsOf } = await import('@uvrex/core/sheets');
    const sheets = sheetsOf(found.form);
    const buffers = sheets.flatMap(({ places, columns }) => [places, ...columns.map(({ values }) => values)]);
    return Comlink.transfer(
      { key: found.key, sheets },
      buffers.map(({ buffer }) => buffer as ArrayBuffer),
    );
  },
  ping() {},
  cancel(ticket) {
    tickets.get(ticket)?.cancel();
  },
  forget(keys) {
    for (const key of keys) sender.forget(key);
  },
};

/** Lets messages in now and then, tells how far a check is, and ends it when it is no longer wanted. */
function yielding(wanted: Wanted): (share: number) => void | Promise<void> {
  let last = performance.now();
  return (share) => {
    if (wanted.aborted) throw new Cancelled();
    if (performance.now() - last < 20) return;
    last = performance.now();
    tell({ news: 'progress', share });
    return pause();
  };
}

/** One evaluation under its ticket; null when it was given up. */
const evaluated = (ticket: number, frame: number, limit?: number): Promise<FrameResult | null> =>
  under(ticket, (of, wanted) => evaluator.evaluate(of, frame, wanted), limit);

/** Whether work goes on: until it is cancelled, or has taken too long. By this thread's own clock, as the page's may be held. */
class Ticket implements Wanted {
  #cancelled = false;
  readonly #until: number;

  constructor(limit = Infinity) {
    this.#until = performance.now() + limit;
  }

  cancel(): void {
    this.#cancelled = true;
  }

  get aborted(): boolean {
    return this.#cancelled || performance.now() > this.#until;
  }
}

/** Work on the loaded scene under a ticket; null when it was given up. */
async function under<T>(
  ticket: number,
  work: (scene: Scene, wanted: Wanted) => Promise<T>,
  limit?: number,
): Promise<T | null> {
  if (!scene) return null;
  const wanted = new Ticket(limit);
  tickets.set(ticket, wanted);
  try {
    return await work(scene, wanted);
  } catch (error) {
    if (error instanceof Cancelled) return null;
    throw error;
  } finally {
    tell({ news: 'stage' });
    tickets.delete(ticket);
  }
}

function payload({ id, key, form, share, notices, costs }: GrowthResult, buffers: ArrayBuffer[]): SentGrowth {
  const items = form?.copies?.items.map((item) => itemKey(item.key)) ?? [];
  const length = grownLength(form?.paths ?? null);
  const common = { id, key, share, length, notices, costs, items, failed: form === null };
  if (!form)
    return {
      ...common,
      counts: { points: 0, faces: 0, copies: 0 },
      ...{ bounds: null, whole: null, size: null, ahead: [], shown: null },
    };
  const whole = wholeBoundsOf(form);
  const measured = {
    ...common,
    counts: countsOf(form),
    bounds: boundsOf(form),
    whole,
    size: whole && diagonalOf(whole),
    ahead: pathsAhead(form),
  };
  if (sender.has(key)) return { ...measured, shown: null };
  return { ...measured, shown: sender.send<Shown>(key, id, shownOf(form, id), buffers) };
}

const diagonalOf = ({ min, max }: Bounds): number => Math.hypot(...[0, 1, 2].map((axis) => max[axis] - min[axis]));

/** An item is held apart from the growth that it comes from, which may show copies besides. */
const itemKey = (key: string): string => `item:${key}`;

/** The items of a growth's copies that the screen does not hold. */
function itemsOf(growth: string, form: Form | null, buffers: ArrayBuffer[]): { key: string; shown: Crossing<Shown> }[] {
  return (form?.copies?.items ?? []).flatMap(({ key, mesh, surface }, i) => {
    const name = itemKey(key);
    if (sender.has(name)) return [];
    const place = `${growth} item ${i}`;
    return [
      { key: name, shown: sender.send<Shown>(name, place, shownOf({ ...emptyForm(), mesh, surface }, place), buffers) },
    ];
  });
}

function ballOf(copies: Copies | null): Ball | null {
  const bounds = copies && boundsOf({ ...emptyForm(), copies });
  if (!bounds) return null;
  const { min, max } = bounds;
  return {
    centre: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2],
    radius: Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) / 2,
  };
}

/** What the screen draws of a form. @param place by which its copies are compared with those that were last there */
function shownOf({ mesh, paths, points, surface, copies }: Form, place: string): Draft<Shown> {
  const same = <T extends Float32Array | Uint32Array | Uint16Array>(name: string, array: T): T =>
    sender.settled(`${place} copies ${name}`, array);
  return {
    mesh: mesh && {
      positions: mesh.positions,
      normals: mesh.normals,
      indices: mesh.indices,
      colors: mesh.colors,
      glow: mesh.glow,
      uvs: surface?.picture ? mesh.uvs : null,
      ball: ballRound(mesh.positions),
    },
    paths: paths && {
      positions: paths.positions,
      offsets: paths.offsets,
      closed: paths.closed,
      fronts: paths.fronts,
      ids: paths.ids,
      u: paths.u,
    },
    copies: copies
      ? placedCopies(
          {
            items: copies.items,
            item: same('item', copies.item),
            positions: same('positions', copies.positions),
            turns: same('turns', copies.turns),
            sizes: same('sizes', copies.sizes),
            tints: copies.tints && same('tints', copies.tints),
            ids: same('ids', copies.ids),
          },
          itemKey,
        )
      : [],
    copiesBall: ballOf(copies),
    dots: points && points.positions,
    dotIds: points && points.ids,
    tips: mesh && surface && surface.glowReach > 0 ? tipsOf(paths, mesh.glow) : null,
    surface,
    picture: pictures.of(surface),
  };
}

Comlink.expose(api);
