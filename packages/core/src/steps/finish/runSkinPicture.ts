import { random } from '../../fields/random';
import type { Form } from '../../geometry/form';
import { PLAIN_SURFACE } from '../../geometry/surface';
import { type Mesh, vertexCount } from '../../geometry/mesh';
import { at } from '../../geometry/vec';
import type { StepContext } from '../declare';
import { pictureOf, projectionOf } from '../stepPicture';
import { skinMapping } from '../skinMapping';
import type { SkinPictureParams } from './skinPicture';

/** A form whose skin has a picture, and texture coordinates for it. */
export async function runSkinPicture(form: Form, p: SkinPictureParams, context: StepContext): Promise<Form> {
  const mesh = form.mesh!;
  const picture = await pictureOf(p.file, context);
  const mapped = await mappingOf(form, p, picture.width / picture.height, context);
  const uvs = new Float32Array(2 * vertexCount(mesh));
  for (let i = 0; 2 * i < uvs.length; i++) {
    if (i % 8192 === 8191) await context.yieldNow();
    uvs.set(mapped(i), 2 * i);
  }
  return {
    ...form,
    mesh: { ...mesh, uvs, colors: p.tinted ? mesh.colors : uncoloured(mesh) },
    surface: { ...(form.surface ?? PLAIN_SURFACE), picture: { file: p.file!, cutoff: p.cutoff } },
  };
}

/** White, but for what came with colours of its own. */
function uncoloured({ positions, colors, finished }: Mesh): Float32Array {
  const white = new Float32Array(positions.length).fill(1);
  if (finished && colors)
    for (let i = 0; i < white.length; i++) if (finished[Math.floor(i / 3)] > 0.5) white[i] = colors[i];
  return white;
}

/** The texture coordinates of each vertex. @param aspect width of the picture over its height */
async function mappingOf(
  form: Form,
  p: SkinPictureParams,
  aspect: number,
  context: StepContext,
): Promise<(vertex: number) => readonly [number, number]> {
  const mesh = form.mesh!;
  if (p.mapping === 'flat') {
    const project = await projectionOf(p, form, context);
    return (vertex) => project(at(mesh.positions, vertex));
  }
  if (p.mapping === 'repeat')
    return (vertex) => [p.around * mesh.uvs[2 * vertex], p.around * aspect * mesh.uvs[2 * vertex + 1] - p.slide];
  const once = skinMapping(mesh);
  const cells = p.columns * p.rows;
  if (cells === 1) return once;
  const cell = cellsOf(mesh, p, cells, context.seed);
  return (vertex) => {
    const [x, y] = once(vertex);
    const number = cell(vertex);
    const [column, row] = [number % p.columns, Math.floor(number / p.columns)];
    return [(column + x) / p.columns, 1 - (row + 1 - y) / p.rows];
  };
}

/** Which picture of the sheet each vertex shows, from 0; to be asked in rising order. */
function cellsOf(
  { parts }: Mesh,
  { pick, cell }: SkinPictureParams,
  cells: number,
  seed: number,
): (vertex: number) => number {
  const first = (cell - 1) % cells;
  if (pick === 'one' || !parts) return () => (pick === 'random' ? Math.floor(random(seed, 0, 7) * cells) : first);
  let part = 0;
  return (vertex) => {
    while (2 * part + 2 < parts.length && vertex >= parts[2 * part + 2]) part++;
    const id = parts[2 * part + 1];
    return pick === 'random' ? Math.min(cells - 1, Math.floor(random(seed, id, 7) * cells)) : (first + id) % cells;
  };
}
