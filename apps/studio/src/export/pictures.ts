import { Problem } from '@uvrex/core';
import { downloadZip } from 'client-zip';
import { frameName } from '@uvrex/formats';
import { decodedSound, soundOf } from '@/state/audio/sound';
import type { Order } from './deliver';

/** A drawn frame; its canvas is drawn over by the next. */
export interface Drawn {
  frame: number;
  canvas: HTMLCanvasElement;
}

/** A format made of pictures: only where there is a screen to draw them. */
export interface PictureFormat {
  id: string;
  takes: 'picture';
  ending: string;
  label: string;
  help: string;
  /** Makes the file of frames that are drawn one after another while it asks for them. @param base what the file is called after */
  write(order: Order, frames: AsyncIterable<Drawn>, base: string): Promise<Blob>;
}

/** All formats of pictures. */
export const PICTURE_FORMATS = [
  {
    id: 'mp4',
    takes: 'picture',
    ending: 'mp4',
    label: 'Film, MP4',
    help: 'Plays everywhere',
    write: (order, frames) => film(order, frames, 'mp4'),
  },
  {
    id: 'webm',
    takes: 'picture',
    ending: 'webm',
    label: 'Film, WebM',
    help: 'Open codec, for the web',
    write: (order, frames) => film(order, frames, 'webm'),
  },
  {
    id: 'png',
    takes: 'picture',
    ending: 'zip',
    label: 'Picture sequence',
    help: 'A PNG a frame, in one zip',
    write: (_, frames, base) => zipOf(frames, base),
  },
] as const satisfies readonly PictureFormat[];

async function zipOf(frames: AsyncIterable<Drawn>, base: string): Promise<Blob> {
  async function* files() {
    for await (const { frame, canvas } of frames) {
      const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
      if (!png) throw new Problem('The browser could not make a picture of that size.', 'Choose a smaller one.');
      yield { name: frameName(base, frame, 'png'), input: png };
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

async function film(order: Order, frames: AsyncIterable<Drawn>, format: 'webm' | 'mp4'): Promise<Blob> {
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
    throw new Problem(
      `This browser cannot encode ${format.toUpperCase()} at ${width} × ${height}.`,
      'Choose a smaller size, or a picture sequence.',
    );

  const target = new BufferTarget();
  const output = new Output({ format: container, target });
  const { fps } = order.scene;
  let source: InstanceType<typeof CanvasSource> | null = null;
  try {
    for await (const { frame, canvas } of frames) {
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
