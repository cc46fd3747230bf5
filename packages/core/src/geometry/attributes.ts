import { Batch, type Numbers } from './batch';

/** What an attribute belongs to. Meshes made of paths keep what belongs to a path as well. */
export type Domain = 'point' | 'path' | 'vertex' | 'face' | 'copy';

/**
 * What becomes of an attribute between elements: `mix` goes from one to the other evenly, `nearest` takes the nearer one's,
 * `sum` adds up where elements become one and mixes else, `rotate` is a direction (width 3) or a turn (width 4) and keeps
 * length 1.
 */
export type Blend = 'mix' | 'nearest' | 'sum' | 'rotate';

export type { Numbers };

/** What an attribute is, apart from its values. */
export interface AttributeType {
  domain: Domain;
  /** Numbers per element. */
  width: 1 | 2 | 3 | 4;
  blend: Blend;
  /** What elements count as that have none, in every component. */
  missing: number;
}

/** An attribute that goes by a name of its own, beside the ones that every form knows. */
export interface Attribute extends AttributeType {
  /** width · n numbers. */
  values: Float32Array;
}

/** Attributes by their names. */
export type Named = Readonly<Record<string, Attribute>>;

/** An attribute of one number an element, which goes from one to the next evenly. */
export const oneNumber = (domain: Domain, values: Float32Array): Attribute => ({
  domain,
  width: 1,
  blend: 'mix',
  missing: 0,
  values,
});

/** No attributes but the built-in ones. */
export const NO_NAMED: Named = Object.freeze({});

/** A built-in attribute: what it is, how its numbers are held, and whether every geometry of its kind has it. */
export interface BuiltIn extends AttributeType {
  array: 'float' | 'integer' | 'byte';
  /** Null on geometries that have none. */
  maybe: boolean;
  /** Stable numbers: where two geometries are joined, those of the second follow those of the first. */
  numbers: boolean;
}

export type Table = Readonly<Record<string, BuiltIn>>;

interface Arrays {
  float: Float32Array;
  integer: Uint32Array;
  byte: Uint8Array;
}

/** The arrays that a geometry has by its table. */
export type Columns<T extends Table> = {
  [K in keyof T]: Arrays[T[K]['array']] | (T[K]['maybe'] extends true ? null : never);
};

type Told<A extends BuiltIn['array'], M extends boolean> = BuiltIn & { array: A; maybe: M };
type More = Partial<Pick<BuiltIn, 'blend' | 'missing' | 'numbers'>>;

const declared = <A extends BuiltIn['array'], M extends boolean>(
  array: A,
  maybe: M,
  domain: Domain,
  width: AttributeType['width'],
  more: More,
): Told<A, M> => ({
  array,
  maybe,
  domain,
  width,
  blend: array === 'float' ? 'mix' : 'nearest',
  missing: 0,
  numbers: false,
  ...more,
});

/** An attribute of floats that every geometry of its kind has. */
export const floats = (domain: Domain, width: AttributeType['width'] = 1, more: More = {}): Told<'float', false> =>
  declared('float', false, domain, width, more);

/** An attribute of floats that is null where nothing has made it. */
export const maybeFloats = (domain: Domain, width: AttributeType['width'] = 1, more: More = {}): Told<'float', true> =>
  declared('float', true, domain, width, more);

/** An attribute of whole numbers that every geometry of its kind has. */
export const integers = (domain: Domain, more: More = {}): Told<'integer', false> =>
  declared('integer', false, domain, 1, more);

/** An attribute of whole numbers that is null where nothing has made it. */
export const maybeIntegers = (domain: Domain, more: More = {}): Told<'integer', true> =>
  declared('integer', true, domain, 1, more);

/** An attribute of small whole numbers, flags mostly. */
export const bytes = (domain: Domain, more: More = {}): Told<'byte', false> => declared('byte', false, domain, 1, more);

/** A geometry's attributes: by its table, and by name. */
export type Attributed<T extends Table> = Columns<T> & { named: Named };

/** One attribute of a geometry as it stands. */
export interface Column {
  name: string;
  type: AttributeType;
  /** Null where it is one of the table's that the geometry has not. */
  values: Numbers | null;
  builtIn: BuiltIn | null;
}

/** All attributes of one domain, built-in ones first. */
export function columnsOf<T extends Table>(table: T, from: Attributed<T>, domain: Domain): Column[] {
  const columns: Column[] = [];
  for (const name of Object.keys(table)) {
    const builtIn = table[name];
    if (builtIn.domain === domain) columns.push({ name, type: builtIn, values: from[name], builtIn });
  }
  for (const [name, attribute] of Object.entries(from.named))
    if (attribute.domain === domain) columns.push({ name, type: attribute, values: attribute.values, builtIn: null });
  return columns;
}

/** An attribute by its name, of whichever domain; null where there is none. */
export function columnNamed<T extends Table>(table: T, from: Attributed<T>, name: string): Column | null {
  if (Object.hasOwn(table, name)) return { name, type: table[name], values: from[name], builtIn: table[name] };
  if (!Object.hasOwn(from.named, name)) return null;
  return { name, type: from.named[name], values: from.named[name].values, builtIn: null };
}

/** Arrays for `count` elements of a domain with the values of what is missing; those that may be null are null. */
export function emptyColumns<T extends Table>(table: T, domain: Domain, count: number): Columns<T> {
  const made: Record<string, Numbers | null> = {};
  const arrays = new Batch();
  const names: string[] = [];
  for (const [name, { domain: own, width, array, maybe }] of Object.entries(table)) {
    if (own !== domain) continue;
    made[name] = null;
    if (maybe) continue;
    arrays.add(array, width * count);
    names.push(name);
  }
  for (const [k, array] of arrays.make().entries()) {
    const { missing } = table[names[k]];
    made[names[k]] = missing === 0 ? array : array.fill(missing);
  }
  return made as Columns<T>;
}
