/** An array on its way to the page: its number, and the array itself only where the page does not hold it yet. */
export interface Column<T extends ArrayBufferView = ArrayBufferView> {
  column: number;
  values: T | null;
}

/** What something is on its way to the page: its arrays are columns. */
export type Crossing<T> = T extends ArrayBufferView
  ? Column<T>
  : T extends readonly (infer U)[]
    ? Crossing<U>[]
    : T extends object
      ? { [K in keyof T]: Crossing<T[K]> }
      : T;

/** An array that is made only where it has to cross; the same whenever it is made of the same. */
export class Made<T extends ArrayBufferView> {
  constructor(
    readonly of: object,
    readonly make: () => T,
  ) {}
}

/** What something is before it is sent: its arrays may have yet to be made. */
export type Draft<T> = T extends ArrayBufferView
  ? T | Made<T>
  : T extends readonly (infer U)[]
    ? Draft<U>[]
    : T extends object
      ? { [K in keyof T]: Draft<T[K]> }
      : T;

type Numbers = Float32Array | Uint32Array | Uint16Array | Uint8Array;

/**
 * What the page holds, as the engine knows it. Forms have keys, their arrays numbers: an array that several forms share, as all frames
 * of a sweep share their faces, crosses once, and stays until the page has forgotten the last of them.
 */
export class Sender {
  readonly #numbers = new WeakMap<object, number>();
  #next = 0;
  readonly #users = new Map<number, number>();
  readonly #forms = new Map<string, number[]>();
  readonly #last = new Map<string, WeakRef<Numbers>>();

  /** Whether the page holds a form. */
  has(key: string): boolean {
    return this.#forms.has(key);
  }

  /** The array that was last in a place, where it holds the same numbers: steps may well make it anew. */
  settled<T extends Numbers>(place: string, array: T): T {
    const last = this.#last.get(place)?.deref();
    if (last && last !== array && sameNumbers(last, array)) return last as T;
    if (last !== array) this.#last.set(place, new WeakRef(array));
    return array;
  }

  /**
   * A form as it crosses. Its arrays stay the engine's own: those that the page does not hold are copied.
   * @param place of its arrays, by which they are compared with those that were last there
   * @param buffers receives what is to be handed over
   */
  send<T extends object>(key: string, place: string, form: Draft<T>, buffers: ArrayBuffer[]): Crossing<T> {
    const columns: number[] = [];
    this.#forms.set(key, columns);
    const put = (of: object, make: () => ArrayBufferView): Column => {
      let column = this.#numbers.get(of);
      if (column === undefined) this.#numbers.set(of, (column = this.#next++));
      const users = this.#users.get(column) ?? 0;
      this.#users.set(column, users + 1);
      columns.push(column);
      if (users > 0) return { column, values: null };
      const values = make();
      buffers.push(values.buffer as ArrayBuffer);
      return { column, values };
    };
    const walk = (value: unknown, at: string): unknown => {
      if (value instanceof Made) return put(value.of, value.make);
      if (ArrayBuffer.isView(value)) {
        const array = this.settled(at, value as Numbers);
        return put(array, () => array.slice());
      }
      return within(value, at, walk);
    };
    return walk(form, place) as Crossing<T>;
  }

  /** The page has let go of a form. */
  forget(key: string): void {
    for (const column of this.#forms.get(key) ?? []) {
      const users = this.#users.get(column)! - 1;
      if (users > 0) this.#users.set(column, users);
      else this.#users.delete(column);
    }
    this.#forms.delete(key);
  }
}

/** The arrays that the page holds for forms of one engine. */
export class Receiver {
  readonly #held = new Map<number, { values: ArrayBufferView; users: number }>();
  readonly #forms = new Map<string, number[]>();

  /** A form with its arrays, those too that came with others. */
  take<T extends object>(key: string, crossing: Crossing<T>): T {
    const columns: number[] = [];
    this.#forms.set(key, columns);
    const walk = (value: unknown, at: string): unknown => {
      if (value === null || typeof value !== 'object' || !('column' in value)) return within(value, at, walk);
      const { column, values } = value as Column;
      let held = this.#held.get(column);
      if (!held) {
        if (!values) throw new Error(`The engine sent a form without ${at || 'an array'} of it.`);
        this.#held.set(column, (held = { values, users: 0 }));
      }
      held.users++;
      columns.push(column);
      return held.values;
    };
    return walk(crossing, '') as T;
  }

  /** Lets go of a form: to be told to the engine as well, before it sends anything more. */
  forget(key: string): void {
    for (const column of this.#forms.get(key) ?? []) {
      const held = this.#held.get(column)!;
      if (--held.users === 0) this.#held.delete(column);
    }
    this.#forms.delete(key);
  }
}

/** The same list or object, of what is made of its parts; anything else as it is. */
function within(value: unknown, at: string, walk: (value: unknown, at: string) => unknown): unknown {
  if (Array.isArray(value)) return value.map((part, i) => walk(part, `${at}/${i}`));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([name, part]) => [name, walk(part, `${at}/${name}`)]));
}

function sameNumbers(a: Numbers, b: Numbers): boolean {
  if (a.length !== b.length || a.constructor !== b.constructor) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
