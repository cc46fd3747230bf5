import {
  type Attribute,
  type Attributed,
  type Column,
  columnNamed,
  type Columns,
  columnsOf,
  type Domain,
  type Named,
  type Table,
} from './attributes';
import { Batch, type Numbers } from './batch';

/** A geometry, and how many elements of a domain it has. */
export interface Counted<T extends Table> {
  of: Attributed<T>;
  count: number;
}

/**
 * The elements of all geometries, one after the other. What only some have, the others have at its missing value; stable
 * numbers go on from those of the geometry before.
 * @param without attributes that are left behind
 */
export function joinColumns<T extends Table>(
  table: T,
  domain: Domain,
  parts: readonly Counted<T>[],
  without: readonly (keyof T & string)[] = [],
): Partial<Columns<T>> & { named: Named } {
  const joining = new Joining(table, domain, parts, without);
  while (joining.goOn());
  return joining.result();
}

/** The same with a yield before each attribute: millions of elements take some hundredths of a second each. */
export async function joinedInTime<T extends Table>(
  table: T,
  domain: Domain,
  parts: readonly Counted<T>[],
  yieldNow: () => Promise<void>,
): Promise<Partial<Columns<T>> & { named: Named }> {
  await yieldNow();
  const joining = new Joining(table, domain, parts, []);
  do await yieldNow();
  while (joining.goOn());
  return joining.result();
}

/** Joins geometries attribute by attribute. */
class Joining<T extends Table> {
  readonly #columns: Record<string, Numbers | null> = {};
  readonly #named: Record<string, Attribute> = {};
  readonly #types = new Map<string, Column>();
  readonly #left: string[];
  readonly #places = new Map<string, number>();
  readonly #made: Numbers[];

  constructor(
    readonly table: T,
    readonly domain: Domain,
    readonly parts: readonly Counted<T>[],
    without: readonly string[],
  ) {
    const total = parts.reduce((sum, { count }) => sum + count, 0);
    const types = this.#types;
    for (const of of new Set(parts.map((part) => part.of)))
      for (const column of columnsOf(table, of, domain))
        if (!types.has(column.name) || column.values) {
          const known = types.get(column.name);
          if (!known?.values) types.set(column.name, column);
        }
    const arrays = new Batch();
    for (const [name, { type, builtIn, values }] of types)
      if (values && !without.includes(name))
        this.#places.set(name, arrays.add(builtIn?.array ?? 'float', type.width * total));
    this.#made = arrays.make();
    this.#left = [...types.keys()].reverse();
  }

  /** Joins one attribute. @returns whether there was one left */
  goOn(): boolean {
    const name = this.#left.pop();
    if (name === undefined) return false;
    const { type, builtIn } = this.#types.get(name)!;
    const place = this.#places.get(name);
    if (place === undefined) {
      this.#columns[name] = null;
      return true;
    }
    const to = this.#made[place];
    let first = 0;
    let next = 0;
    for (const { of, count } of this.parts) {
      const own = columnNamed(this.table, of, name);
      const fits = own?.values && own.type.domain === this.domain && own.type.width === type.width;
      if (!fits) to.fill(type.missing, type.width * first, type.width * (first + count));
      else if (builtIn?.numbers) {
        let top = next;
        for (let i = 0; i < count; i++) {
          const number = next + own.values![i];
          to[first + i] = number;
          if (number >= top) top = number + 1;
        }
        next = top;
      } else to.set(own.values!.subarray(0, type.width * count), type.width * first);
      first += count;
    }
    if (builtIn) this.#columns[name] = to;
    else this.#named[name] = { ...type, values: to as Float32Array };
    return true;
  }

  result(): Partial<Columns<T>> & { named: Named } {
    return { ...(this.#columns as Partial<Columns<T>>), named: this.#named };
  }
}
