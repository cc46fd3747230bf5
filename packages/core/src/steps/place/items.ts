import { hash, random } from '../../fields/random';
import type { Measures } from '../../geometry/measures';
import { Problem } from '../../problem';
import type {
  AttributeParam,
  ChoiceParam,
  GrowthParam,
  NumberParam,
  Resolved,
  StepContext,
  TextParam,
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
export const ITEMS = ['growth', 'second', 'third', 'fourth', 'fifth'] as const;
type ItemName = (typeof ITEMS)[number];

const several = (p: Resolved): boolean => p.growth !== null && p.second !== null;

/** What is copied: the same fields in every step that places copies. */
export const itemParams = {
  growth: item(
    'Item',
    'The growth, or the group of growths, that is copied. Its size counts as it stands at the last frame.',
  ),
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

/** Which item goes by a value: the first at `mixFrom`, each of the others one further; what lies beyond has the last. */
export const byValue = (value: number, from: number, count: number): number =>
  Math.min(count - 1, Math.max(0, Math.round(value - from)));

/** The fields of what goes by an attribute, where more than one thing is chosen. */
export const byAttributeParams = (shown: (p: Resolved) => boolean) => ({
  mixBy: {
    type: 'attribute',
    label: 'Attribute',
    help: 'A number of places by which items are dealt out: the generation of branches, say.',
    default: 'generation',
    shown,
  } satisfies AttributeParam,
  mixFrom: {
    type: 'number',
    unit: 'plain',
    label: 'First at',
    help: 'Value of the attribute that has the first item; one more has the second, and so on.',
    default: 0,
    min: -1e6,
    max: 1e6,
    slider: [0, 5],
    shown,
  } satisfies NumberParam,
});

const { variants, ...dealt } = itemParams;

/** What is copied to points, which know more: dealt out by an attribute of theirs as well. */
export const pointItemParams = {
  ...dealt,
  mix: {
    ...itemParams.mix,
    help: 'How the items are dealt out: in a pattern that repeats, by odds, or by what the points know.',
    options: [...itemParams.mix.options, { value: 'attribute', label: 'By attribute' }],
  } satisfies ChoiceParam,
  ...byAttributeParams((p) => several(p) && p.mix === 'attribute'),
  variants,
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
  mixFrom?: number;
}

/** An item and its measures. */
export interface ItemShape extends Measures {
  id: string;
}

/** The items that are dealt out to places. */
export interface Items {
  shapes: ItemShape[];
  /** How long the pattern is, 1 where there is none. */
  length: number;
  /** Which item is the k-th of its row. @param number random number of the place @param value of the attribute they go by */
  at: (k: number, number: number, value?: number) => number;
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
    const measures = await context.measures(name);
    if (!measures) return null;
    shapes.push({ id, ...measures });
  }
  const variant = (number: number): number => (p.variants > 1 ? hash(number, 5) % p.variants : 0);
  if (shapes.length === 1) return { shapes, length: 1, at: () => 0, variant };
  if (p.mix === 'attribute') {
    const from = p.mixFrom ?? 0;
    return { shapes, length: 1, at: (_, __, value = from) => byValue(value, from, shapes.length), variant };
  }
  if (p.mix === 'odds') {
    const odds = numbersIn(p.odds).slice(0, shapes.length);
    const total = odds.reduce((sum, odd) => sum + odd, 0);
    if (odds.length < shapes.length || !(total > 0) || odds.some((odd) => !(odd >= 0)))
      throw new Problem(`“${p.odds}” are no odds of ${shapes.length} items.`, 'Write one number an item, as in 3 1.');
    const drawn = (number: number): number => {
      let left = random(number, 4) * total;
      const found = odds.findIndex((odd) => (left -= odd) < 0);
      return found < 0 ? shapes.length - 1 : found;
    };
    return { shapes, length: 1, at: (_, number) => drawn(number), variant };
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
