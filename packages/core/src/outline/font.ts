import type { Font, Glyph } from 'opentype.js';
import { Problem } from '../problem';
import { Pen } from './bezier';
import { soundFont } from './sfnt';

const MOST_BYTES = 32e6;

/** Fonts that have been read, by their bytes. */
const read = new WeakMap<Uint8Array, Promise<Font>>();

/**
 * Reads a font file: TrueType, OpenType or WOFF.
 * @throws Problem for anything else, and for damaged files
 */
export function readFont(bytes: Uint8Array): Promise<Font> {
  let font = read.get(bytes);
  if (!font) read.set(bytes, (font = parse(bytes)));
  return font;
}

async function parse(bytes: Uint8Array): Promise<Font> {
  if (bytes.length > MOST_BYTES) {
    throw new Problem(
      `The font file is of ${Math.round(bytes.length / 1e6)} MB; 32 MB is the most.`,
      'Choose a smaller font.',
    );
  }
  const sound = soundFont(bytes);
  // Loaded when first asked for: most scenes hold no text.
  const library = await import('opentype.js');
  // Under Node the package is CommonJS without named exports.
  const parse = library.parse ?? (library as unknown as { default: typeof library }).default.parse;
  try {
    const font = parse(sound);
    if (font.unitsPerEm > 0 && font.glyphs.length > 0) return font;
  } catch {
    throw new Problem(
      'The font cannot be read: a table of it is damaged, or of a kind that Uvrex does not know.',
      'Choose a sound TTF, OTF or WOFF file.',
    );
  }
  throw new Problem('The font cannot be read: it holds no glyphs.', 'Choose a sound TTF, OTF or WOFF file.');
}

/**
 * Outlines of a text, one line or several, in em: the first baseline is y = 0, lines are set flush left.
 * @param spacing more room between letters, in em
 * @throws Problem when the font has no shape for a letter, or no letter has an outline
 */
export function textContours(font: Font, text: string, spacing: number): { points: number[]; closed: boolean }[] {
  const em = font.unitsPerEm;
  const lineHeight = (font.ascender - font.descender) / em;
  const pen = new Pen(0.0015);
  text.split('\n').forEach((line, row) => {
    for (const letter of line) {
      if (letter.trim() !== '' && font.charToGlyphIndex(letter) === 0)
        throw new Problem(`The font has no shape for “${letter}”.`, 'Leave the letter out, or choose another font.');
    }
    for (const { type, x = 0, y = 0, x1 = 0, y1 = 0, x2 = 0, y2 = 0 } of commandsOf(
      font,
      line,
      row * lineHeight,
      spacing,
    )) {
      // Fonts' own paths grow downwards here; ours grow upwards.
      // Contours of letters are closed, whether a font says so or not.
      if (type === 'M') {
        pen.end(true);
        pen.move(x, -y);
      }
      if (type === 'L') pen.line(x, -y);
      else if (type === 'C') pen.cubic(x1, -y1, x2, -y2, x, -y);
      else if (type === 'Q') pen.quadratic(x1, -y1, x, -y);
      else if (type === 'Z') pen.end(true);
    }
    pen.end(true);
  });
  if (pen.contours.length === 0) throw new Problem('There is no letter with an outline.', 'Type a letter.');
  return pen.contours;
}

interface Command {
  type: string;
  x?: number;
  y?: number;
  x1?: number;
  y1?: number;
  x2?: number;
  y2?: number;
}

/** Letter by letter with kerning: the library's own shaping gives up on features that many fonts have. */
function commandsOf(font: Font, line: string, y: number, spacing: number): Command[] {
  const commands: Command[] = [];
  let x = 0;
  let before: Glyph | null = null;
  try {
    for (const letter of line) {
      const glyph = font.charToGlyph(letter);
      if (before) x += font.getKerningValue(before, glyph) / font.unitsPerEm;
      commands.push(...(glyph.getPath(x, y, 1).commands as Command[]));
      x += (glyph.advanceWidth ?? 0) / font.unitsPerEm + spacing;
      before = glyph;
    }
  } catch {
    throw new Problem(
      'The font cannot set this text: a glyph or a kerning table of it is damaged.',
      'Choose another font.',
    );
  }
  if (
    commands.some((command) =>
      Object.values(command).some((value) => typeof value === 'number' && !Number.isFinite(value)),
    )
  )
    throw new Problem('The font is damaged: a letter has no finite outline.', 'Choose another font.');
  return commands;
}
