import { hash, random } from '../../fields/random';
import { boundsOf, type Form } from '../../geometry/form';
import { type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import {
  type ChoiceParam,
  type GrowthParam,
  type NumberParam,
  type Resolved,
  type StepContext,
  type TextParam,
} from '../declare';

const item = (label: string, help: string, shown?: (p: Resolved) => boolean): GrowthParam => ({
  type: 'growth',
  label,
  help,
  default: null,
  still: true,
  item: true,
  shown,
});
/** The parameters that name what is copied, in their order. */
const ITEMS = ['growth', 'second', 'third', 'fourth', 'fifth'] as const;
type ItemName = (typeof ITEMS)[number];

const several = (p: Resolved): boolean => p.growth !== null && p.second !== null;

/** What is copied: the same fields in every step that places copies. */
export const itemParams = {
  growth: item('Item', 'The growth that is copied. Its size counts as it stands at the last frame.'),
  second: item('Second item', 'Another growth among the copies.', (p) => p.growth !== null),
  third: item('Third item', 'One more growth among the copies.', several),
  fourth: item('Fourth item', 'One more growth among the copies.', (p) => several(p) && p.third !== null),
  fifth: item(
    'Fifth item',
    'One more growth among the copies.',
    (p) => several(p) && p.third !== null && p.fourth !== null,
  ),
  mix: {
    type: 'choice',
    label: 'Mix',
    help: 'How the items are dealt out: in a pattern that repeats, or by odds.',
    options: [
      { value: 'order', label: 'In a pattern' },
      { value: 'odds', label: 'By odds' },
    ],
    default: 'order',
    shown: several,
  } satisfies ChoiceParam,
  pattern: {
    type: 'text',
    label: 'Pattern',
    help: '1 is the first item, 2 the second, and so on: “1 2 2” is one of the first, then two of the second.',
    default: '1 2',
    most: 200,
    shown: (p) => several(p) && p.mix === 'order',
  } satisfies TextParam,
  odds: {
    type: 'text',
    label: 'Odds',
    help: 'One number an item: “3 1” takes the first three times as often as the second.',
    default: '1 1 1 1 1',
    most: 80,
    shown: (p) => several(p) && p.mix === 'odds',
  } satisfies TextParam,
  variants: {
    type: 'number',
    unit: 'count',
    label: 'Variants',
    help: 'How many different ones of each item there are, grown with randomness of their own; 1 makes all copies the same.',
    default: 1,
    min: 1,
    max: 256,
    slider: [1, 24],
    whole: true,
  } satisfies NumberParam,
};

/** How large copies are: the same fields in every step that places them. */
export const sizeParam: NumberParam = {
  type: 'number',
  unit: 'share',
  label: 'Size',
  help: 'Size of the copies against the item as it is.',
  default: 1,
  min: 0,
  max: 1000,
  slider: [0, 3],
};
export const varyParam: NumberParam = {
  type: 'number',
  unit: 'share',
  label: 'Vary size',
  help: 'By how much copies are smaller, at random.',
  default: 0,
  min: 0,
  max: 1,
};

interface ItemChoice extends Record<ItemName, string | null> {
  mix: string;
  pattern: string;
  odds: string;
  variants: number;
}

/** An item and its measures. */
export interface ItemShape {
  id: string;
  form: Form;
  /** Corners of its box, metres. */
  min: Vec3;
  max: Vec3;
}

/** The items that are dealt out to places. */
export interface Items {
  shapes: ItemShape[];
  /** How long the pattern is, 1 where there is none. */
  length: number;
  /** Which item is the k-th of its row. @param number random number of the place */
  at: (k: number, number: number) => number;
  /** Which variant a place shows: 0 is the item as it is. */
  variant: (number: number) => number;
}

/** The items as they are chosen; null while one of them has no shape yet. @throws Problem where none is chosen, or the mix makes no sense */
export async function itemsOf(p: ItemChoice, context: StepContext): Promise<Items | null> {
  if (p.growth === null) throw new Problem('No item is chosen.', 'Choose the growth that is copied.');
  const shapes: ItemShape[] = [];
  for (const name of ITEMS) {
    const id = p[name];
    // Those behind one that is not chosen do not show.
    if (id === null) break;
    const form = await context.other(name);
    const bounds = boundsOf(form);
    if (!bounds || (!form.mesh && !form.copies)) return null;
    shapes.push({ id, form, ...bounds });
  }
  const variant = (number: number): number => (p.variants > 1 ? hash(number, 5) % p.variants : 0);
  if (shapes.length === 1) return { shapes, length: 1, at: () => 0, variant };
  if (p.mix === 'odds') {
    const odds = numbersIn(p.odds).slice(0, shapes.length);
    const total = odds.reduce((sum, odd) => sum + odd, 0);
    if (odds.length < shapes.length || !(total > 0) || odds.some((odd) => !(odd >= 0)))
      throw new Problem(`“${p.odds}” are no odds of ${shapes.length} items.`, 'Write one number an item, as in 3 1.');
    const dealt = (number: number): number => {
      let left = random(number, 4) * total;
      const found = odds.findIndex((odd) => (left -= odd) < 0);
      return found < 0 ? shapes.length - 1 : found;
    };
    return { shapes, length: 1, at: (_, number) => dealt(number), variant };
  }
  const pattern = numbersIn(p.pattern);
  if (pattern.length === 0 || pattern.some((n) => !Number.isInteger(n) || n < 1 || n > shapes.length))
    throw new Problem(
      `“${p.pattern}” is no pattern of ${shapes.length} items.`,
      `Write numbers from 1 to ${shapes.length}, as in 1 2 2.`,
    );
  return { shapes, length: pattern.length, at: (k) => pattern[k % pattern.length] - 1, variant };
}

/** Numbers in a text, with commas, semicolons or spaces between. */
export const numbersIn = (text: string): number[] =>
  text
    .split(/[,;\s]+/)
    .filter((word) => word !== '')
    .map(Number);
