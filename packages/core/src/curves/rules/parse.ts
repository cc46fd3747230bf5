import { Problem } from '../../problem';
import { FormulaError, type WorkedFormula, workedFormula } from '../../time/formula';

/** A symbol that a rule puts down: its letter, and what its parameters are worked out from. */
export interface Made {
  letter: string;
  args: readonly WorkedFormula[];
}

/** A symbol that is looked for: its letter, and the names that its parameters get. */
export interface Sought {
  letter: string;
  names: readonly string[];
}

/** What becomes of a symbol, and when. */
export interface Rule {
  of: Sought;
  /** What has to stand before and after it along its branch. */
  before: Sought | null;
  after: Sought | null;
  condition: WorkedFormula | null;
  /** Its share among those that fit; null for one that always holds. */
  odds: number | null;
  makes: readonly Made[];
}

/** A system of rules as it is worked by. */
export interface System {
  axiom: readonly Made[];
  rules: ReadonlyMap<string, readonly Rule[]>;
  /** Symbols that are passed over in looking before and after. */
  ignored: ReadonlySet<string>;
}

/** Signs that turn, branch and set; letters and figures are symbols of one's own. */
const SIGNS = "+-&^\\/|$[]!'{}.";
const TURNS = ['+', '-', '&', '^', '\\', '/', '|', '$', '!', "'"];
const isSymbol = (char: string): boolean => /[A-Za-z0-9]/.test(char) || SIGNS.includes(char);

/**
 * Reads an axiom and rules in the notation of Prusinkiewicz and Lindenmayer, The Algorithmic Beauty of Plants, 1990, one rule a line:
 * `before < symbol(names) > after : condition -> makes`, with its share of the odds in the arrow where there is one,
 * `A -0.3-> F[+A]A`. `ignore: +-F` lists what is passed over in looking before and after; a line from `#` on is a comment, as `//` is
 * two rolls.
 * @throws Problem that says the line and column
 */
export function readRules(axiom: string, rules: string): System {
  const found = new Map<string, Rule[]>();
  let ignored = new Set(TURNS);
  rules.split('\n').forEach((line, i) => {
    const text = line.replace(/#.*$/, '');
    if (text.trim() === '') return;
    const ignore = /^\s*ignore\s*:(.*)$/.exec(text);
    if (ignore) {
      ignored = new Set([...ignore[1].replace(/\s/g, '')]);
      return;
    }
    const rule = new Reader(text, 'Rules', i + 1).rule();
    found.set(rule.of.letter, [...(found.get(rule.of.letter) ?? []), rule]);
  });
  return { axiom: new Reader(axiom, 'Axiom', 1).makes(new Set()), rules: found, ignored };
}

/** Reads one line, and knows where it is. */
class Reader {
  #at = 0;
  #end: number;

  constructor(
    readonly text: string,
    readonly field: string,
    readonly line: number,
  ) {
    this.#end = text.length;
  }

  fail(what: string, at = this.#at): never {
    throw new Problem(
      `${this.field}, line ${this.line}, column ${at + 1}: ${what}.`,
      'A rule is written as in A(x) : x > 1 -> F(x)[+A(x / 2)]A(x / 2).',
      { text: { field: this.field.toLowerCase(), line: this.line, column: at + 1 } },
    );
  }

  rule(): Rule {
    const arrow = this.#find('->', 0, this.text.length);
    if (arrow < 0) this.fail('there is no arrow ->', this.text.length);
    let end = arrow;
    let odds: number | null = null;
    const written = /-\s*(\d*\.?\d+)\s*$/.exec(this.text.slice(0, arrow));
    if (written) {
      odds = Number(written[1]);
      end = written.index;
      if (!(odds > 0)) this.fail('odds are above 0', written.index + 1);
    }
    const colon = this.#find(':', 0, end);
    const head = colon < 0 ? end : colon;
    const [less, more] = [this.#find('<', 0, head), this.#find('>', 0, head)];
    const before = less < 0 ? null : this.#sought(0, less);
    const of = this.#sought(less < 0 ? 0 : less + 1, more < 0 ? head : more);
    const after = more < 0 ? null : this.#sought(more + 1, head);
    const names = new Set([before, of, after].flatMap((part) => [...(part?.names ?? [])]));
    const stated = colon < 0 ? '' : this.text.slice(colon + 1, end).trim();
    const condition = stated === '' || stated === '*' ? null : this.#formula(colon + 1, end, names);
    this.#at = arrow + 2;
    this.#end = this.text.length;
    return { of, before, after, condition, odds, makes: this.makes(names) };
  }

  /** The symbols up to the end of the line. */
  makes(names: ReadonlySet<string>): Made[] {
    const made: Made[] = [];
    const open: number[] = [];
    for (this.#blank(); this.#at < this.#end; this.#blank()) {
      const char = this.text[this.#at];
      if (!isSymbol(char)) this.fail(`“${char}” is no symbol`);
      if (char === '[') open.push(this.#at);
      if (char === ']' && open.pop() === undefined) this.fail('] closes nothing');
      this.#at++;
      made.push({ letter: char, args: this.#parts().map(([a, b]) => this.#formula(a, b, names)) });
    }
    if (open.length > 0) this.fail('[ is never closed', open[0]);
    return made;
  }

  #blank(): void {
    while (this.#at < this.#end && /\s/.test(this.text[this.#at])) this.#at++;
  }

  /** Where what stands in parentheses after a symbol begins and ends, part by part. */
  #parts(): (readonly [number, number])[] {
    if (this.text[this.#at] !== '(' || this.#at >= this.#end) return [];
    const begun = this.#at;
    const parts: (readonly [number, number])[] = [];
    let depth = 0;
    let first = this.#at + 1;
    for (; this.#at < this.#end; this.#at++) {
      const char = this.text[this.#at];
      if (char === '(') depth++;
      else if (char === ')') depth--;
      if ((char === ',' && depth === 1) || depth === 0) {
        parts.push([first, this.#at]);
        first = this.#at + 1;
      }
      if (depth === 0) {
        this.#at++;
        return parts;
      }
    }
    return this.fail('( is never closed', begun);
  }

  /** Where a sign stands outside of parentheses; −1 for nowhere. */
  #find(sign: string, from: number, end: number): number {
    let depth = 0;
    for (let i = from; i + sign.length <= end; i++) {
      if (this.text[i] === '(') depth++;
      else if (this.text[i] === ')') depth--;
      else if (depth === 0 && this.text.startsWith(sign, i)) return i;
    }
    return -1;
  }

  #sought(from: number, end: number): Sought {
    [this.#at, this.#end] = [from, end];
    this.#blank();
    if (this.#at >= end) this.fail('a symbol is missing', from);
    const letter = this.text[this.#at];
    if (!isSymbol(letter)) this.fail(`“${letter}” is no symbol`);
    this.#at++;
    const names = this.#parts().map(([a, b]) => {
      const name = this.text.slice(a, b).trim();
      if (!/^[A-Za-z]\w*$/.test(name)) this.fail(`“${name}” is no name`, a);
      return name;
    });
    this.#blank();
    if (this.#at < end) this.fail('only one symbol can stand here');
    return { letter, names };
  }

  #formula(from: number, end: number, names: ReadonlySet<string>): WorkedFormula {
    const text = this.text.slice(from, end).trim();
    try {
      const worked = workedFormula(text);
      const unknown = worked.names.find((name) => !names.has(name));
      if (unknown !== undefined) this.fail(`“${unknown}” is no parameter here`, this.text.indexOf(unknown, from));
      return worked;
    } catch (error) {
      if (error instanceof FormulaError) this.fail(`“${text}” ${error.message}`, from);
      throw error;
    }
  }
}
