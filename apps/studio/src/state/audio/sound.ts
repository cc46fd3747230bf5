import { isShown, REEF_SOUND, type Scene, stepOf } from '@uvrex/core';
import { useDocument } from '../document/document';
import { storedBytes } from '../../store/db';
import { useView } from '../document/view';

/** The sound that a scene moves to: that of its first shown growth that goes by one. */
export interface Track {
  file: string;
  repeat: boolean;
}

export function soundOf(scene: Scene): Track | null {
  for (const growth of scene.growths) {
    if (!isShown(scene, growth)) continue;
    for (const { kind, on, params } of growth.steps) {
      const heard = on ? stepOf(kind)?.hears?.(params) : null;
      if (heard) return heard;
    }
  }
  return null;
}

/** Bytes of a sound that a scene uses; undefined when its file is not there. */
const bytesOf = async (file: string): Promise<Uint8Array | undefined> =>
  file === REEF_SOUND ? (await import('@uvrex/core/page')).reefWav() : storedBytes(file);

/** The decoded sound of a scene; null when there is none, or the browser cannot read it. */
export async function decodedSound(scene: Scene, context: BaseAudioContext): Promise<AudioBuffer | null> {
  const track = soundOf(scene);
  const bytes = track && (await bytesOf(track.file));
  if (!bytes) return null;
  // Decoding takes the buffer away: it gets a copy.
  return context.decodeAudioData(bytes.slice().buffer as ArrayBuffer).catch(() => null);
}

/** Seconds by which sound and picture may be apart before the sound is set right. */
const APART = 0.12;
/** The sound is set right no more often than this, seconds: while pictures are late it would only stutter. */
const PATIENCE = 0.5;

/** Plays the scene's sound along with its frames. */
export function startSound(): () => void {
  let context: AudioContext | null = null;
  /** The sound that was decoded last; null where it could not be. */
  let ready: { file: string; buffer: Promise<AudioBuffer | null> } | null = null;
  let source: AudioBufferSourceNode | null = null;
  let origin = 0;
  let begun = -Infinity;

  const silence = (): void => {
    source?.stop();
    source = null;
  };
  const play = (seconds: number, buffer: AudioBuffer, repeat: boolean): void => {
    silence();
    if (!context || (!repeat && seconds >= buffer.duration)) return;
    source = new AudioBufferSourceNode(context, { buffer, loop: repeat });
    source.connect(context.destination);
    source.start(0, seconds % buffer.duration);
    begun = context.currentTime;
    origin = seconds;
  };
  const follow = async (): Promise<void> => {
    const { playing, muted, frame } = useView.getState();
    const { scene } = useDocument.getState();
    const track = playing && !muted ? soundOf(scene) : null;
    if (!track) {
      silence();
      return;
    }
    context ??= new AudioContext();
    if (ready?.file !== track.file) {
      silence();
      ready = { file: track.file, buffer: decodedSound(scene, context) };
    }
    const buffer = await ready.buffer;
    // Playing may have ended while it was decoded.
    if (!buffer || !useView.getState().playing) return;
    const seconds = (frame - scene.range[0]) / scene.fps;
    const heard = origin + context.currentTime - begun;
    const wrapped = seconds < origin;
    if (!source || wrapped || (Math.abs(heard - seconds) > APART && context.currentTime - begun > PATIENCE))
      play(seconds, buffer, track.repeat);
  };
  const stop = useView.subscribe((now, before) => {
    if (now.playing !== before.playing || now.muted !== before.muted || (now.playing && now.frame !== before.frame))
      void follow();
  });
  return () => {
    stop();
    silence();
    void context?.close();
  };
}
