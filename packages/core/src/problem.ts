/** Where a problem sits: a growth and step of the scene, or a place in a file. */
export interface Place {
  growth?: string;
  step?: string;
  path?: string;
  /** A place in a text that a field holds: its line and column, counted from 1. */
  text?: { field: string; line: number; column: number };
}

/** An error that a person can act on: what went wrong, where, and what to do about it. */
export class Problem extends Error {
  readonly advice: string;
  readonly place: Place;

  /**
   * @param what one sentence saying what went wrong
   * @param advice one sentence saying what to do
   * @param place where it happened, as far as it is known
   */
  constructor(what: string, advice: string, place: Place = {}) {
    super(what);
    this.name = 'Problem';
    this.advice = advice;
    this.place = place;
  }
}

/** Thrown inside an evaluation that was given up in favour of a newer one. It is no failure. */
export class Cancelled extends Error {
  constructor() {
    super('cancelled');
    this.name = 'Cancelled';
  }
}
