import { filled, mapped, type Sheet, type SheetColumn } from '@uvrex/core';
import { falseColours, spreadOf } from '@uvrex/core/page';
import { type Inspected, type Shade, shadedColumn } from '@/state/director/inspection';
import type { OnScreen } from '@/state/director/results';

/** The values at both ends of the scale in which a column is shown. */
export function rangeOf({ range }: Shade, { values }: SheetColumn): readonly [number, number] {
  if (range) return range;
  const spread = spreadOf(values);
  return spread ? [spread.least, spread.most] : [0, 1];
}

let last: { growth: OnScreen; column: SheetColumn; range: readonly [number, number] | null; made: OnScreen } | null =
  null;

/** The colours in which a growth's skin is drawn now, where it is shown by an attribute: 3 each vertex, to be changed in place. */
export const skinColours = (growth: string): Float32Array | null =>
  last?.growth.id === growth ? (last.made.shown.mesh?.colors ?? null) : null;

/** What is on screen with an attribute of one growth as colours; as it is where that has not been read yet. */
export function shadeByAttribute(
  onScreen: readonly OnScreen[],
  shade: Shade,
  inspected: Inspected | null,
): readonly OnScreen[] {
  const column = shadedColumn(shade, inspected);
  const sheet = inspected?.sheets.find(({ of }) => of === shade.of);
  if (!column || !sheet) return onScreen;
  return onScreen.map((growth) => {
    if (growth.id !== shade.growth || growth.key !== inspected!.key) return growth;
    // The same picture is the same objects: nothing is handed to the graphics again.
    if (last?.growth !== growth || last.column !== column || last.range !== shade.range)
      last = { growth, column, range: shade.range, made: recoloured(growth, shade, column, sheet) };
    return last.made;
  });
}

function recoloured(growth: OnScreen, shade: Shade, column: SheetColumn, sheet: Sheet): OnScreen {
  const { shown } = growth;
  const colours = falseColours(column.values, ...rangeOf(shade, column));
  switch (shade.of) {
    case 'vertices':
      return {
        ...growth,
        shown: { ...shown, mesh: shown.mesh && { ...shown.mesh, colors: colours, glow: null, flat: true } },
      };
    case 'faces': {
      const { mesh } = shown;
      return { ...growth, shown: { ...shown, mesh: mesh && facesApart(mesh, colours) } };
    }
    case 'points':
    case 'loose':
      return { ...growth, shown: { ...shown, pointColors: colours } };
    case 'paths': {
      const { offsets, positions } = shown.paths!;
      const pointColors = new Float32Array(positions.length);
      for (let p = 0; p < sheet.count; p++)
        for (let i = offsets[p]; i < offsets[p + 1]; i++) pointColors.set(colours.subarray(3 * p, 3 * p + 3), 3 * i);
      return { ...growth, shown: { ...shown, pointColors } };
    }
    case 'copies': {
      const ids = sheet.columns.find(({ name }) => name === 'ids')!.values;
      const rows = new Map(Array.from(ids, (id, row) => [id, row]));
      const copies = shown.copies.map((copy) => {
        const tints = new Float32Array(3 * copy.ids.length);
        copy.ids.forEach((id, k) => {
          const row = rows.get(id) ?? 0;
          tints.set(colours.subarray(3 * row, 3 * row + 3), 3 * k);
        });
        // The items' own colours would tinge them.
        return { ...copy, item: plainKey(copy.item), tints };
      });
      const items = new Map([...growth.items].map(([key, item]) => [plainKey(key), plain(item)]));
      return { ...growth, items, shown: { ...shown, copies } };
    }
  }
}

/** A skin whose corners are each a face's own, in the colours of its faces. */
function facesApart(
  { positions, normals, indices, ball }: NonNullable<OnScreen['shown']['mesh']>,
  colours: Float32Array,
): OnScreen['shown']['mesh'] {
  const own = (from: Float32Array, at: (corner: number) => number): Float32Array =>
    filled(Float32Array, 3 * indices.length, (k) => from[3 * at(Math.floor(k / 3)) + (k % 3)]);
  return {
    positions: own(positions, (corner) => indices[corner]),
    normals: own(normals, (corner) => indices[corner]),
    indices: mapped(Uint32Array, indices, (_, corner) => corner),
    colors: own(colours, (corner) => Math.floor(corner / 3)),
    glow: null,
    uvs: null,
    ball,
    flat: true,
  };
}

const plainKey = (key: string): string => `plain ${key}`;

const plain = (item: OnScreen['shown']): OnScreen['shown'] => ({
  ...item,
  mesh: item.mesh && {
    ...item.mesh,
    colors: new Float32Array(item.mesh.positions.length).fill(1),
    glow: null,
    flat: true,
  },
});
