import { downloadZip } from 'client-zip';
import { type Scene } from '@uvrex/core';
import { storedBytes } from '@/state/files';
import { decodedSound, soundOf } from '@/state/sound';
import { Engine } from '@/worker/engine';
import { type Delivery } from './save';
import { PictureMaker, type PictureStyle } from './pictureMaker';

export type Format = 'webm' | 'mp4' | 'png' | 'glb' | 'obj' | 'json';

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
  switch (format) {
    case 'json':
      return sceneDelivery(scene, base);
    case 'glb':
    case 'obj':
      return { name: `${base}-${String(order.frame).padStart(4, '0')}.${format}`, blob: await geometry(order, format) };
    case 'png':
      return { name: `${base}-png.zip`, blob: await pictures(order, base) };
    case 'webm':
    case 'mp4':
      return { name: `${base}.${format}`, blob: await film(order, format) };
  }
}

async function sceneDelivery(scene: Scene, base: string): Promise<Delivery> {
  const { writeSceneFile } = await import('@uvrex/core/files');
  const { bytes, ending } = await writeSceneFile(scene, storedBytes);
  const type = ending === 'zip' ? 'application/zip' : 'application/json';
  return { name: `${base}.uvrex.${ending}`, blob: new Blob([bytes as Uint8Array<ArrayBuffer>], { type }) };
}

async function geometry({ scene, frame, signal }: Order, format: 'glb' | 'obj'): Promise<Blob> {
  const engine = new Engine();
  const stop = (): void => engine.cancel();
  signal.addEventListener('abort', stop);
  try {
    engine.load(scene);
    const bytes = await engine.file(frame, format);
    if (!bytes) throw new Stopped();
    return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: format === 'glb' ? 'model/gltf-binary' : 'model/obj' });
  } finally {
    signal.removeEventListener('abort', stop);
    engine.dispose();
  }
}

/** Draws the ordered frames one after another; between frames the page can act and the order can be stopped. */
async function* drawn({
  scene,
  range,
  style,
  signal,
  progress,
}: Order): AsyncGenerator<{ frame: number; canvas: HTMLCanvasElement }> {
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

async function pictures(order: Order, base: string): Promise<Blob> {
  async function* files() {
    for await (const { frame, canvas } of drawn(order)) {
      const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
      if (!png) throw new Error('The browser could not make a picture of that size: choose a smaller one.');
      yield { name: `${base}_${String(frame).padStart(4, '0')}.png`, input: png };
    }
  }
  // The zip is read as a response, which would say no more than that it could not be fetched.
  let reason: unknown = null;
  async function* told() {
    try {
      yield* files();
    } catch (error) {
      reason = error;
      throw error;
    }
  }
  try {
    return await downloadZip(told()).blob();
  } catch (error) {
    throw reason ?? error;
  }
}

async function film(order: Order, format: 'webm' | 'mp4'): Promise<Blob> {
  const {
    AudioBufferSource,
    BufferTarget,
    CanvasSource,
    getFirstEncodableAudioCodec,
    getFirstEncodableVideoCodec,
    Mp4OutputFormat,
    Output,
    QUALITY_VERY_HIGH,
    WebMOutputFormat,
  } = await import('mediabunny');
  const { width, height } = order.style;
  const container = format === 'webm' ? new WebMOutputFormat() : new Mp4OutputFormat({ fastStart: 'in-memory' });
  const wanted = format === 'webm' ? (['vp9', 'vp8', 'av1'] as const) : (['avc', 'vp9', 'av1'] as const);
  const codec = await getFirstEncodableVideoCodec([...wanted], { width, height });
  if (!codec)
    throw new Error(
      `This browser cannot encode ${format.toUpperCase()} at ${width} × ${height}: choose a smaller size, or a picture sequence.`,
    );

  const target = new BufferTarget();
  const output = new Output({ format: container, target });
  const { fps } = order.scene;
  let source: InstanceType<typeof CanvasSource> | null = null;
  try {
    for await (const { frame, canvas } of drawn(order)) {
      if (!source) {
        source = new CanvasSource(canvas, { codec, bitrate: QUALITY_VERY_HIGH, keyFrameInterval: 2 });
        output.addVideoTrack(source, { frameRate: fps });
        const sound = await rangeSound(order);
        const voice = sound && (await getFirstEncodableAudioCodec(['aac', 'opus']));
        const audio = voice ? new AudioBufferSource({ codec: voice, bitrate: 160_000 }) : null;
        if (audio) output.addAudioTrack(audio);
        await output.start();
        if (audio && sound) {
          await audio.add(sound);
          audio.close();
        }
      }
      await source.add((frame - order.range[0]) / fps, 1 / fps);
    }
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  }
  return new Blob([target.buffer!], { type: `video/${format}` });
}

/** The scene's sound over the ordered frames; null when it has none. */
async function rangeSound({ scene, range }: Order): Promise<AudioBuffer | null> {
  const track = soundOf(scene);
  if (!track) return null;
  const rate = 48000;
  const seconds = (range[1] - range[0] + 1) / scene.fps;
  const context = new OfflineAudioContext(2, Math.ceil(seconds * rate), rate);
  const buffer = await decodedSound(scene, context);
  if (!buffer) return null;
  const source = new AudioBufferSourceNode(context, { buffer, loop: track.repeat });
  source.connect(context.destination);
  source.start(0, Math.max(0, (range[0] - scene.range[0]) / scene.fps) % buffer.duration);
  return context.startRendering();
}
