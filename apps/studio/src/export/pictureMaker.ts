import { PerspectiveCamera } from 'three';
import { Problem, add, scale, type Scene, type Vec3 } from '@uvrex/core';
import type { OnScreen } from '@/state/director/results';
import type { Shown } from '@/worker/protocol';
import { Engine } from '@/worker/engine';
import { pictureRenderer, type Rendering } from '@/viewport/rendering';
import { sceneLook } from '@/state/actions/sceneLook';
import type { Eye } from '@/state/document/view';
import { aim, Rig } from '@/viewport/rig';

/** Size and care of pictures that leave the product. */
export interface PictureStyle {
  width: number;
  height: number;
  quality: Rendering['quality'];
}

/** Makes the shot's pictures of a scene, frame by frame, with an engine of its own so that the studio stays free. */
export class PictureMaker {
  readonly canvas: HTMLCanvasElement;
  readonly #large: HTMLCanvasElement;
  readonly #engine = new Engine();
  readonly #rig = new Rig();
  readonly #renderer;
  readonly #camera = new PerspectiveCamera();
  readonly #kept = new Map<string, Shown>();

  #scene: Scene;

  constructor(
    scene: Scene,
    readonly style: PictureStyle,
  ) {
    this.#scene = scene;
    this.canvas = document.createElement('canvas');
    this.canvas.width = style.width;
    this.canvas.height = style.height;
    // Fine pictures are drawn at twice the size and brought down: smooth edges on every machine.
    const factor = style.quality === 'fine' && Math.max(style.width, style.height) <= 2048 ? 2 : 1;
    this.#large = document.createElement('canvas');
    this.#renderer = pictureRenderer(this.#large, style.width * factor, style.height * factor);
    this.#engine.load(scene);
  }

  /** Goes on with another scene. */
  use(scene: Scene): void {
    this.#scene = scene;
    this.#engine.load(scene);
  }

  /**
   * Draws one frame onto `canvas`.
   * @param from through the shot's camera, or from where everything is in the picture
   * @throws Error that names the growth when one has a problem; EngineLost
   */
  async draw(frame: number, from: 'shot' | 'afar' = 'shot'): Promise<void> {
    const scene = this.#scene;
    const payload = await this.#engine.evaluate(frame);
    if (!payload) throw new Problem('The evaluation was given up.', 'Try it again.');
    const used = new Set<string>();
    for (const { key, shown } of payload.items) this.#kept.set(key, shown);
    const growths = payload.growths.map(({ id, key, shown, failed, notices, items }): OnScreen => {
      const growth = scene.growths.find((entry) => entry.id === id);
      if (failed)
        throw new Problem(
          `Frame ${frame}: “${growth?.name}” has a problem: ${notices[0]?.what ?? ''}`,
          'Mend it, or hide the growth.',
        );
      if (shown) this.#kept.set(key, shown);
      for (const one of [key, ...items]) used.add(one);
      return {
        id,
        key,
        hue: growth?.hue ?? '#ffffff',
        shown: this.#kept.get(key)!,
        items: new Map(items.map((item) => [item, this.#kept.get(item)!])),
      };
    });
    const old = [...this.#kept.keys()].filter((key) => !used.has(key));
    for (const key of old) this.#kept.delete(key);
    this.#engine.forget(old);
    this.#rig.show({ scene, frame, growths, look: 'finished', rendering: { quality: this.style.quality } });
    const { camera, lens } = sceneLook(scene, frame);
    aim(this.#camera, from === 'shot' ? camera : this.#afar(lens.fov), lens.fov, this.style.width / this.style.height);
    this.#rig.draw(this.#renderer, this.#camera, this.style.width, this.style.height);
    const context = this.canvas.getContext('2d')!;
    context.imageSmoothingQuality = 'high';
    context.drawImage(this.#large, 0, 0, this.style.width, this.style.height);
  }

  /** A little from above and aside, as far off as everything needs. */
  #afar(fov: number): Eye {
    const { center, radius } = this.#rig.bounds;
    const half = (Math.min(fov, (fov * this.style.width) / this.style.height) * Math.PI) / 360;
    const reach = (1.08 * radius) / Math.sin(half);
    const target: Vec3 = [center.x, center.y, center.z];
    return { target, position: add(target, scale([0.45, 0.3, 0.84], reach)) };
  }

  /** What is on `canvas`, small in bytes; null where the browser cannot write it. */
  blob(): Promise<Blob | null> {
    return new Promise((done) => this.canvas.toBlob(done, 'image/webp', 0.85));
  }

  dispose(): void {
    this.#engine.dispose();
    this.#rig.dispose();
    this.#renderer.dispose();
    this.#renderer.forceContextLoss();
  }
}
