/** The fractal paths there are. */
export type FractalKind = 'hilbert' | 'hilbert-3d' | 'koch' | 'dragon' | 'gosper' | 'arrowhead';

/** An L-system drawn by a turtle: Prusinkiewicz and Lindenmayer, The Algorithmic Beauty of Plants, 1990, section 1.4. */
interface Rules {
  axiom: string;
  rules: Readonly<Record<string, string>>;
  /** Letters that draw. */
  draws: string;
  /** Degrees of + and −. */
  angle: number;
}

const RULES: Readonly<Record<Exclude<FractalKind, 'hilbert-3d'>, Rules>> = {
  hilbert: { axiom: 'L', rules: { L: '+RF-LFL-FR+', R: '-LF+RFR+FL-' }, draws: 'F', angle: 90 },
  koch: { axiom: 'F', rules: { F: 'F+F--F+F' }, draws: 'F', angle: 60 },
  dragon: { axiom: 'A', rules: { A: 'A+B', B: 'A-B' }, draws: 'AB', angle: 90 },
  gosper: { axiom: 'A', rules: { A: 'A-B--B+A++AA+B-', B: '+A-BB--B-A++A+B' }, draws: 'AB', angle: 60 },
  arrowhead: { axiom: 'A', rules: { A: 'B-A-B', B: 'A+B+A' }, draws: 'AB', angle: 60 },
};

/** How many segments the path of an order has: known beforehand, so that a budget can refuse it. */
export function fractalSegments(kind: FractalKind, order: number): number {
  const bases = { hilbert: 4, 'hilbert-3d': 8, koch: 4, dragon: 2, gosper: 7, arrowhead: 3 };
  return bases[kind] ** order - (kind.startsWith('hilbert') ? 1 : 0);
}

/**
 * Corners of a fractal path with segments of length 1.
 * @param order how often the rule is applied, 1 or more
 * @returns xyz triples, one more than segments; plane ones lie in XY and begin at the origin
 */
export function fractalPoints(kind: FractalKind, order: number): Float64Array {
  if (kind === 'hilbert-3d') return hilbert3(order);
  const { axiom, rules, draws, angle } = RULES[kind];
  const out = new Float64Array(3 * (fractalSegments(kind, order) + 1));
  // Whole steps of the angle, not sums of radians: the path stays exact at any order.
  const turns = 360 / angle;
  const cos = Array.from({ length: turns }, (_, i) => exact(Math.cos((2 * Math.PI * i) / turns)));
  const sin = Array.from({ length: turns }, (_, i) => exact(Math.sin((2 * Math.PI * i) / turns)));
  let heading = 0;
  let [x, y] = [0, 0];
  let write = 3;
  const draw = (symbols: string, depth: number): void => {
    for (const symbol of symbols) {
      if (symbol === '+') heading = (heading + 1) % turns;
      else if (symbol === '-') heading = (heading + turns - 1) % turns;
      else if (depth > 0 && rules[symbol]) draw(rules[symbol], depth - 1);
      else if (draws.includes(symbol)) {
        x += cos[heading];
        y += sin[heading];
        out[write] = x;
        out[write + 1] = y;
        write += 3;
      }
    }
  };
  draw(axiom, order);
  return out;
}

/** Sines of the angles used are 0, ±½, ±1 or ±√3/2: rounding noise is taken off the rational ones. */
const exact = (value: number): number =>
  Math.abs(2 * value - Math.round(2 * value)) < 1e-12 ? Math.round(2 * value) / 2 : value;

/**
 * Cells of the three-dimensional Hilbert curve in order: John Skilling, Programming the Hilbert curve, AIP Conference
 * Proceedings 707, 2004 (transpose to axes).
 */
function hilbert3(order: number): Float64Array {
  const count = 8 ** order;
  const out = new Float64Array(3 * count);
  const cell = new Uint32Array(3);
  for (let index = 0; index < count; index++) {
    // The index's bits are dealt out to the three axes, highest first.
    cell.fill(0);
    for (let bit = 0; bit < 3 * order; bit++) {
      if (Math.floor(index / 2 ** (3 * order - 1 - bit)) % 2) cell[bit % 3] |= 1 << (order - 1 - Math.floor(bit / 3));
    }
    const gray = cell[2] >> 1;
    for (let i = 2; i > 0; i--) cell[i] ^= cell[i - 1];
    cell[0] ^= gray;
    for (let q = 2; q !== 1 << order; q <<= 1) {
      const low = q - 1;
      for (let i = 2; i >= 0; i--) {
        if (cell[i] & q) cell[0] ^= low;
        else {
          const swap = (cell[0] ^ cell[i]) & low;
          cell[0] ^= swap;
          cell[i] ^= swap;
        }
      }
    }
    out.set(cell, 3 * index);
  }
  return out;
}
