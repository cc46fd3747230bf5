import { BufferAttribute, BufferGeometry, Color, Points, PointsMaterial, SRGBColorSpace } from 'three';
import { boxAround, middleOf, sidesOf } from '@uvrex/core';
import type { Shown } from '@/worker/protocol';

/**
 * A disc for each copy, as wide and as coloured as what it stands for: drawn where even a few faces each would be too
 * many while things move.
 */
export function specksOf(
  what: Shown,
  copies: Shown['copies'][number],
  hue: string,
  material: PointsMaterial,
): Points<BufferGeometry, PointsMaterial> {
  const { matrices, tints } = copies;
  const n = matrices.length / 16;
  const positions = new Float32Array(3 * n);
  const extents = new Float32Array(n);
  const colors = new Float32Array(3 * n);
  const { middle, reach } = aroundOf(what.mesh!.positions);
  const own = what.mesh!.colors ? meanOf(what.mesh!.colors) : new Color(hue).toArray();
  const [r, g, b] = what.picture ? meanPixel(what.picture.rgba).map((value, c) => value * own[c]) : own;
  for (let k = 0; k < n; k++) {
    const m = matrices.subarray(16 * k, 16 * k + 16);
    for (let c = 0; c < 3; c++)
      positions[3 * k + c] = m[c] * middle[0] + m[4 + c] * middle[1] + m[8 + c] * middle[2] + m[12 + c];
    extents[k] =
      reach * Math.cbrt(Math.hypot(m[0], m[1], m[2]) * Math.hypot(m[4], m[5], m[6]) * Math.hypot(m[8], m[9], m[10]));
    const [x, y, z] = tints ? tints.subarray(3 * k, 3 * k + 3) : [1, 1, 1];
    colors.set([r * x, g * y, b * z], 3 * k);
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('color', new BufferAttribute(colors, 3));
  geometry.setAttribute('extent', new BufferAttribute(extents, 1));
  const points = new Points(geometry, material);
  points.frustumCulled = false;
  return points;
}

/** What specks are drawn with: one for all, kept, since a program that nothing uses any more is linked anew for the next. */
export function speckMaterial(): PointsMaterial {
  const material = new PointsMaterial({ size: 2, vertexColors: true });
  material.onBeforeCompile = (shader) => {
    shader.vertexShader = shader.vertexShader
      .replace('#include <common>', '#include <common>\nattribute float extent;')
      .replace('gl_PointSize = size;', 'gl_PointSize = size * extent * projectionMatrix[1][1];');
    shader.fragmentShader = shader.fragmentShader.replace(
      '#include <color_fragment>',
      '#include <color_fragment>\nif (length(gl_PointCoord - 0.5) > 0.5) discard;',
    );
  };
  return material;
}

interface Around {
  middle: readonly number[];
  reach: number;
}

const known = new WeakMap<Float32Array, Around>();

/** Middle of the box round places, and a radius that fills about as much of the picture as what is in it does. */
function aroundOf(positions: Float32Array): Around {
  let around = known.get(positions);
  if (!around) known.set(positions, (around = measured(positions)));
  return around;
}

function measured(positions: Float32Array): Around {
  const box = boxAround(positions);
  const sides = sidesOf(box);
  return {
    middle: middleOf(box),
    // A disc as large as the middle one of the box's three sides.
    reach: Math.sqrt(
      [sides[0] * sides[1], sides[1] * sides[2], sides[2] * sides[0]].sort((a, b) => a - b)[1] / Math.PI,
    ),
  };
}

function meanOf(colors: Float32Array): number[] {
  const sum = [0, 0, 0];
  for (let i = 0; i < colors.length; i++) sum[i % 3] += colors[i];
  return sum.map((value) => (3 * value) / colors.length);
}

const pixels = new WeakMap<Uint8Array, number[]>();

/** The mean colour of a picture where it is opaque, linear RGB. */
function meanPixel(rgba: Uint8Array): number[] {
  const before = pixels.get(rgba);
  if (before) return before;
  const sum = [0, 0, 0, 0];
  for (let i = 0; i < rgba.length; i += 4) {
    for (let c = 0; c < 3; c++) sum[c] += rgba[i + c] * rgba[i + 3];
    sum[3] += rgba[i + 3];
  }
  const mean = new Color().setRGB(
    ...(sum.slice(0, 3).map((value) => value / Math.max(1, 255 * sum[3])) as [number, number, number]),
    SRGBColorSpace,
  );
  const made = mean.toArray();
  pixels.set(rgba, made);
  return made;
}
