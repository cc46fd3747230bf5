import { bytesOf, type Form } from '../geometry/form';

interface Entry {
  form: Form;
  bytes: number;
}

/** Forms under their keys, the longest unused dropped first when the bytes pass the budget. */
export class FormCache {
  readonly #entries = new Map<string, Entry>();
  readonly #budget: number;
  #bytes = 0;

  /** @param budget bytes */
  constructor(budget: number) {
    this.#budget = budget;
  }

  get bytes(): number {
    return this.#bytes;
  }

  get(key: string): Form | undefined {
    const entry = this.#entries.get(key);
    if (!entry) return undefined;
    this.#entries.delete(key);
    this.#entries.set(key, entry);
    return entry.form;
  }

  /** @param input the form it was made from: arrays shared with that one are counted there */
  set(key: string, form: Form, input: Form): void {
    const bytes = bytesOf(form, input) + 512;
    if (bytes > this.#budget) return;
    this.#entries.set(key, { form, bytes });
    this.#bytes += bytes;
    for (const [oldest, entry] of this.#entries) {
      if (this.#bytes <= this.#budget) break;
      this.#entries.delete(oldest);
      this.#bytes -= entry.bytes;
    }
  }
}
