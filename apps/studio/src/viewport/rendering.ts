import { NeutralToneMapping, PCFShadowMap, SRGBColorSpace, WebGLRenderer } from 'three';
import type { Vec3 } from '@uvrex/core';

/** From where copies are looked at. */
export interface Viewpoint {
  eye: Vec3;
  /** Pixels that one metre takes at a distance of one metre. */
  pixels: number;
}

/** How carefully a picture is drawn. */
export interface Rendering {
  quality: 'draft' | 'standard' | 'fine';
  /** Drawn faintly: as a frame before the present one or after it, or as what stands beside what is looked at alone. */
  ghost?: 'before' | 'after' | 'beside';
  /** The part of the copies that is drawn, as shares of each item's; all of them where it is left out. */
  copies?: { from: number; to: number };
  /** The most vertices and faces of a copy: those with more are drawn by stand-ins. */
  light?: number;
  /** Copies small in this view are drawn from lighter forms; left out, all are drawn as they are. */
  viewpoint?: Viewpoint;
  /** Nothing moves: a draft is drawn as finely as the screen shows it. */
  rest?: boolean;
}

/**
 * Pixels drawn for each pixel shown, along one side: fine pictures are drawn larger and brought down, drafts smaller where
 * the processor has to draw them.
 */
export const pixelRatioOf = ({ quality, rest }: Rendering, device: number): number =>
  quality === 'fine'
    ? Math.max(2, device)
    : quality === 'standard' || rest
      ? device
      : Math.min(drawnBySoftware() ? 0.66 : 1, device);

let software: boolean | null = null;

/** Whether WebGL is drawn by the processor here: then everything is slow, and drafts are the default while moving. */
export function drawnBySoftware(): boolean {
  if (software !== null) return software;
  const context = document.createElement('canvas').getContext('webgl2');
  const info = context?.getExtension('WEBGL_debug_renderer_info');
  const name = context && info ? String(context.getParameter(info.UNMASKED_RENDERER_WEBGL)) : '';
  software = !context || /swiftshader|llvmpipe|software|basic render/i.test(name);
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return software;
}

/** Brings a renderer to how all of the product's pictures are made. */
export function prepareRenderer(renderer: WebGLRenderer): void {
  renderer.outputColorSpace = SRGBColorSpace;
  renderer.toneMapping = NeutralToneMapping;
  renderer.shadowMap.enabled = true;
  renderer.shadowMap.type = PCFShadowMap;
  renderer.shadowMap.autoUpdate = false;
}

/** A renderer for pictures that leave the product, at an exact size. */
export function pictureRenderer(
  canvas: HTMLCanvasElement | OffscreenCanvas,
  width: number,
  height: number,
): WebGLRenderer {
  const renderer = new WebGLRenderer({
    canvas,
    antialias: false,
    preserveDrawingBuffer: true,
    powerPreference: 'high-performance',
  });
  prepareRenderer(renderer);
  renderer.setPixelRatio(1);
  renderer.setSize(width, height, false);
  return renderer;
}
