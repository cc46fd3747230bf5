import { type Copies, type Mesh, type Paths, pathCount, srgbOf, wholeMesh } from '@uvrex/core';

/** One named part of a picture's geometry. */
export interface Part {
  name: string;
  copies: Copies | null;
  mesh: Mesh | null;
  paths: Paths | null;
}

/**
 * Writes Wavefront OBJ: a group for each part with positions, texture coordinates and normals; copies are
 * written out; paths as polylines where a part has neither. Vertex colours, in sRGB, follow the coordinates, as common practice
 * (no source) has it.
 * @returns the file's text in pieces, to be joined or streamed
 */
export function* objText(parts: readonly Part[]): Generator<string> {
  yield '# Uvrex: metres, Y up\n';
  let base = 1;
  for (const part of parts) {
    const { name, paths } = part;
    const mesh = wholeMesh(part);
    yield `o ${name.replace(/\s+/g, '_')}\n`;
    if (mesh) {
      yield* meshText(mesh, base);
      base += mesh.positions.length / 3;
    } else if (paths) {
      yield* pathText(paths, base);
      base += paths.positions.length / 3;
    }
  }
}

const CHUNK = 4096;

function* meshText({ positions, normals, uvs, colors, indices }: Mesh, base: number): Generator<string> {
  const n = positions.length / 3;
  yield* lines(n, (i) => {
    const color = colors ? ` ${[0, 1, 2].map((c) => short(srgbOf(colors[3 * i + c]))).join(' ')}` : '';
    return `v ${triple(positions, i)}${color}`;
  });
  yield* lines(n, (i) => `vt ${short(uvs[2 * i])} ${short(uvs[2 * i + 1])}`);
  yield* lines(n, (i) => `vn ${triple(normals, i)}`);
  const corner = (index: number): string => {
    const k = index + base;
    return `${k}/${k}/${k}`;
  };
  yield* lines(
    indices.length / 3,
    (f) => `f ${corner(indices[3 * f])} ${corner(indices[3 * f + 1])} ${corner(indices[3 * f + 2])}`,
  );
}

function* pathText(paths: Paths, base: number): Generator<string> {
  yield* lines(paths.positions.length / 3, (i) => `v ${triple(paths.positions, i)}`);
  for (let p = 0; p < pathCount(paths); p++) {
    const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
    if (b - a < 2) continue;
    const numbers = Array.from({ length: b - a }, (_, i) => base + a + i);
    if (paths.closed[p]) numbers.push(base + a);
    yield `l ${numbers.join(' ')}\n`;
  }
}

function* lines(count: number, line: (i: number) => string): Generator<string> {
  for (let from = 0; from < count; from += CHUNK) {
    let text = '';
    for (let i = from; i < Math.min(count, from + CHUNK); i++) text += `${line(i)}\n`;
    yield text;
  }
}

const triple = (values: Float32Array, i: number): string =>
  `${short(values[3 * i])} ${short(values[3 * i + 1])} ${short(values[3 * i + 2])}`;

/** Up to seven significant digits: what single precision holds. */
const short = (value: number): string => String(Number(value.toPrecision(7)));
