import { type GeometryFormat, type GeometryFormatId, frameName } from '@uvrex/formats';
import type { Scene } from '@uvrex/core';
import { Engine } from '@/worker/engine';
import { FileTaskAborted, runFileTask } from '@/worker/runFileTask';
import { type Format, formatOf } from './formats';
import type { Drawn } from './pictures';
import type { Delivery } from '../state/storage/saveToDisk';
import { PictureMaker, type PictureStyle } from './pictureMaker';

export interface Order {
  format: Format;
  scene: Scene;
  /** Frames to deliver, both ends included; geometry takes `frame`. */
  range: readonly [number, number];
  frame: number;
  style: PictureStyle;
  signal: AbortSignal;
  /** Told after each frame. */
  progress: (done: number, total: number) => void;
}

/** Thrown when the person cancelled. */
export class Stopped extends Error {}

/**
 * Makes a file to the order.
 * @throws Stopped when its signal aborts; Error with what to do for everything else
 */
export async function deliver(order: Order): Promise<Delivery> {
  const { format, scene } = order;
  const base =
    scene.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'scene';
  const made = formatOf(format);
  switch (made.takes) {
    case 'scene':
      return sceneDelivery(order, base);
    case 'frame':
      return { name: frameName(base, order.frame, made.ending), blob: await frameFile(order, made) };
    case 'sequence':
      return { name: `${base}.${made.ending}`, blob: await sequenceFile(order, made) };
    case 'picture': {
      const name = made.ending === 'zip' ? `${base}-${made.id}.zip` : `${base}.${made.ending}`;
      return { name, blob: await made.write(order, drawn(order), base) };
    }
  }
}

async function sceneDelivery({ scene, signal }: Order, base: string): Promise<Delivery> {
  const { bytes, ending } = await runFileTask('writeScene', scene, signal).catch((error: unknown) => {
    throw error instanceof FileTaskAborted ? new Stopped() : error;
  });
  const type = ending === 'zip' ? 'application/zip' : 'application/json';
  return { name: `${base}.uvrex.${ending}`, blob: new Blob([bytes as Uint8Array<ArrayBuffer>], { type }) };
}

type Told<T extends GeometryFormat['takes']> = Extract<GeometryFormat, { takes: T }> & { id: GeometryFormatId };

/** An engine of its own for an order, which ends with it. */
async function withEngine<T>({ scene, signal }: Order, work: (engine: Engine) => Promise<T>): Promise<T> {
  const engine = new Engine();
  const stop = (): void => engine.cancel();
  signal.addEventListener('abort', stop);
  try {
    engine.load(scene);
    return await work(engine);
  } finally {
    signal.removeEventListener('abort', stop);
    engine.dispose();
  }
}

async function written(engine: Engine, frame: number, id: GeometryFormatId, signal: AbortSignal): Promise<Uint8Array> {
  const bytes = signal.aborted ? null : await engine.file(frame, id);
  if (!bytes) throw new Stopped();
  return bytes;
}

const frameFile = (order: Order, { id, type }: Told<'frame'>): Promise<Blob> =>
  withEngine(order, async (engine) => blobOf([await written(engine, order.frame, id, order.signal)], type));

const sequenceFile = (order: Order, { id, type, open, close }: Told<'sequence'>): Promise<Blob> =>
  withEngine(order, async (engine) => {
    const { scene, range, signal, progress } = order;
    const [first, last] = range;
    const pieces = [await open(scene)];
    for (let frame = first; frame <= last; frame++) {
      pieces.push(await written(engine, frame, id, signal));
      progress(frame - first + 1, last - first + 1);
    }
    return blobOf([...pieces, await close(scene)], type);
  });

const blobOf = (pieces: readonly Uint8Array[], type: string): Blob =>
  new Blob(pieces as Uint8Array<ArrayBuffer>[], { type });

/** Draws the ordered frames one after another; between frames the page can act and the order can be stopped. */
async function* drawn({ scene, range, style, signal, progress }: Order): AsyncGenerator<Drawn> {
  const maker = new PictureMaker(scene, style);
  const [first, last] = range;
  try {
    for (let frame = first; frame <= last; frame++) {
      if (signal.aborted) throw new Stopped();
      await maker.draw(frame);
      yield { frame, canvas: maker.canvas };
      progress(frame - first + 1, last - first + 1);
      await new Promise((resume) => setTimeout(resume));
    }
  } finally {
    maker.dispose();
  }
}
