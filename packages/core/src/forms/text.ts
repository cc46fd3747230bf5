const [ZERO, NINE, MINUS, PLUS, DOT, LOWER_E, UPPER_E] = [48, 57, 45, 43, 46, 101, 69];
const [NEWLINE, RETURN, SPACE, TAB] = [10, 13, 32, 9];

/** Powers of ten that doubles hold exactly. */
const TENS = Array.from({ length: 23 }, (_, i) => 10 ** i);

/** Reads words and numbers out of a text in bytes, line by line, without making strings of them. */
export class TextReader {
  at = 0;
  /** Of the line that is being read, counted from 1. */
  line = 1;

  constructor(readonly bytes: Uint8Array) {}

  get ended(): boolean {
    return this.at >= this.bytes.length;
  }

  /** Passes blanks over, not the end of the line. */
  blanks(): void {
    const { bytes } = this;
    for (;;) {
      const byte = bytes[this.at];
      if (byte === SPACE || byte === TAB || byte === RETURN) this.at++;
      // A line that ends in a backslash goes on in the next.
      else if (
        byte === 92 &&
        (bytes[this.at + 1] === NEWLINE || (bytes[this.at + 1] === RETURN && bytes[this.at + 2] === NEWLINE))
      ) {
        this.at += bytes[this.at + 1] === RETURN ? 3 : 2;
        this.line++;
      } else return;
    }
  }

  /** Whether nothing more stands on the line. */
  get lineEnded(): boolean {
    this.blanks();
    return this.ended || this.bytes[this.at] === NEWLINE;
  }

  nextLine(): void {
    const { bytes } = this;
    while (this.at < bytes.length && bytes[this.at] !== NEWLINE) this.at++;
    this.at++;
    this.line++;
  }

  /** Passes blanks and ends of lines over. */
  gaps(): void {
    while (!this.ended && this.lineEnded) this.nextLine();
  }

  /** The next word on the line; empty where there is none. */
  word(): string {
    this.blanks();
    const from = this.at;
    while (this.at < this.bytes.length && this.bytes[this.at] > SPACE) this.at++;
    return String.fromCharCode(...this.bytes.subarray(from, Math.min(this.at, from + 256)));
  }

  /** What is left of the line. */
  rest(): string {
    this.blanks();
    const from = this.at;
    while (this.at < this.bytes.length && this.bytes[this.at] !== NEWLINE) this.at++;
    return new TextDecoder().decode(this.bytes.subarray(from, this.at)).trim();
  }

  /** The next number on the line; NaN where there is none. What is too long for a double's digits is rounded. */
  number(): number {
    this.blanks();
    const { bytes } = this;
    const from = this.at;
    let at = from;
    const negative = bytes[at] === MINUS;
    if (negative || bytes[at] === PLUS) at++;
    let mantissa = 0;
    let exponent = 0;
    let digits = 0;
    let byte = bytes[at];
    for (; byte >= ZERO && byte <= NINE; byte = bytes[++at], digits++)
      if (mantissa < 9e14) mantissa = 10 * mantissa + byte - ZERO;
      else exponent++;
    if (byte === DOT)
      for (byte = bytes[++at]; byte >= ZERO && byte <= NINE; byte = bytes[++at], digits++)
        if (mantissa < 9e14) {
          mantissa = 10 * mantissa + byte - ZERO;
          exponent--;
        }
    if (digits === 0) return NaN;
    if (byte === LOWER_E || byte === UPPER_E) {
      let scan = at + 1;
      const down = bytes[scan] === MINUS;
      if (down || bytes[scan] === PLUS) scan++;
      let power = 0;
      const first = scan;
      for (; bytes[scan] >= ZERO && bytes[scan] <= NINE; scan++)
        power = Math.min(9999, 10 * power + bytes[scan] - ZERO);
      if (scan > first) {
        exponent += down ? -power : power;
        at = scan;
      }
    }
    this.at = at;
    const size =
      exponent === 0
        ? mantissa
        : exponent > 0
          ? mantissa * (TENS[exponent] ?? 10 ** exponent)
          : mantissa / (TENS[-exponent] ?? 10 ** -exponent);
    return negative ? -size : size;
  }
}
