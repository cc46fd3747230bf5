import { shippedOf } from '../../scene/shippedFiles';
import { Problem } from '../../problem';
import type { ParamSpecs, StepContext } from '../declare';

/** What is set, and how: the same fields wherever letters are. */
export const letterParams = {
  text: {
    type: 'text',
    label: 'Text',
    help: 'What is set; a line break begins a new line.',
    default: 'Reef',
    most: 500,
  },
  font: {
    type: 'file',
    kind: 'font',
    label: 'Font',
    help: 'A TTF, OTF or WOFF file, or the font that comes with Uvrex.',
    shipped: shippedOf('font'),
    default: 'shipped:bricolage',
  },
  spacing: {
    type: 'number',
    unit: 'share',
    label: 'Letter space',
    help: 'Room between letters besides their own, against the size.',
    default: 0,
    min: -1,
    max: 10,
    slider: [-0.2, 1],
  },
} as const satisfies ParamSpecs;

/** The contours of letters, for a line a metre high. */
export async function letters(
  { text, font, spacing }: { text: string; font: string | null; spacing: number },
  context: StepContext,
): Promise<{ points: number[]; closed: boolean }[]> {
  if (font === null) throw new Problem('No font is chosen.', 'Load a font, or take the one that comes with Uvrex.');
  const { readFont, textContours } = await import('../../outline/font');
  return textContours(await readFont(await context.file(font)), text, spacing);
}
