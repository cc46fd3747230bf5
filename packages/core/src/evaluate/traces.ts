import type { FormKind } from '../geometry/form';

/** A result that a step came to, by name: its form may have been dropped meanwhile. */
export interface Outcome {
  key: string;
  kinds: readonly FormKind[];
  /** Ids of the growths that its seats show; empty where it has none. */
  shows: readonly string[];
  /** What the step has told of what it made. */
  notes: readonly Note[];
}

/** Something to know of a result that is no failure. */
export interface Note {
  what: string;
  advice: string;
  fix?: Fix;
}

/** Numbers of the step that mend what is told, and what setting them is called. */
export interface Fix {
  label: string;
  set: Readonly<Record<string, number>>;
}

/** One thing that was read, and what it said then. */
export interface Read {
  question: string;
  answer: string;
}

interface Branch {
  question: string;
  answers: Map<string, Branch | Outcome>;
}

/** Results that are remembered in each of two generations: some tens of megabytes. */
const MOST = 60_000;

/**
 * What steps have read, and what they came to. A run of a step reads one thing after another, and which it reads next hangs
 * only on what it has read before: so runs from one beginning make a tree of questions, whose branches are answers. To look
 * a result up is to ask the same questions again, and a result is found only where every answer is the same: a verifying
 * trace in the sense of Mokhov, Mitchell and Peyton Jones, Build systems à la carte (ICFP 2018), section 4.2.
 */
export class Traces {
  #young = new Map<string, Branch | Outcome>();
  #old = new Map<string, Branch | Outcome>();
  #count = 0;

  /**
   * The outcome of an earlier run from the same beginning that read the same.
   * @param ask answers a question as things are now; undefined where it has no answer
   */
  async find(
    begin: string,
    ask: (question: string) => string | undefined | Promise<string | undefined>,
  ): Promise<Outcome | undefined> {
    let at = this.#young.get(begin);
    if (!at) {
      at = this.#old.get(begin);
      // What is used again lives on.
      if (at) this.#young.set(begin, at);
    }
    while (at && 'question' in at) {
      const asked = ask(at.question);
      const answer: string | undefined = typeof asked === 'object' ? await asked : asked;
      at = answer === undefined ? undefined : at.answers.get(answer);
    }
    return at;
  }

  put(begin: string, reads: readonly Read[], outcome: Outcome): void {
    if (++this.#count > MOST) {
      this.#old = this.#young;
      this.#young = new Map();
      this.#count = 1;
    }
    let at: { get: () => Branch | Outcome | undefined; set: (next: Branch | Outcome) => void } = {
      get: () => this.#young.get(begin),
      set: (next) => void this.#young.set(begin, next),
    };
    for (const { question, answer } of reads) {
      const found = at.get();
      // A run that asks otherwise than the one before it, which an interrupted step may do, takes its place.
      const branch: Branch =
        found && 'question' in found && found.question === question ? found : { question, answers: new Map() };
      if (branch !== found) at.set(branch);
      at = { get: () => branch.answers.get(answer), set: (next) => void branch.answers.set(answer, next) };
    }
    at.set(outcome);
  }
}
