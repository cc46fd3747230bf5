/** Median of the times that a piece of work takes, milliseconds; warmed up first, for at least `least` rounds. */
export async function median(work: () => unknown, least = 15): Promise<number> {
  for (let i = 0; i < 5; i++) await work();
  const times: number[] = [];
  const started = performance.now();
  while (times.length < least || performance.now() - started < 400) {
    const before = performance.now();
    await work();
    times.push(performance.now() - before);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}

/** One comparison: ours beside theirs in the same run. */
export interface Row {
  what: string;
  ours: number;
  theirs: number | null;
  /** What one run makes, for a rate. */
  amount: number;
  unit: string;
}

/** Prints comparisons as a table; the ratio says how many times faster ours is. */
export function print(rows: readonly Row[]): void {
  console.table(
    rows.map(({ what, ours, theirs, amount, unit }) => ({
      what,
      'ours, ms': Number(ours.toFixed(3)),
      'theirs, ms': theirs === null ? '' : Number(theirs.toFixed(3)),
      'times faster': theirs === null ? '' : Number((theirs / ours).toFixed(1)),
      'our rate': `${(amount / ours / 1000).toFixed(1)} M ${unit}/s`,
    })),
  );
}

/** The power of the amount that the cost grows with: the slope of the line through the logarithms (least squares). */
export async function exponent(amounts: readonly number[], cost: (amount: number) => Promise<number>): Promise<number> {
  const points: [number, number][] = [];
  for (const amount of amounts) points.push([Math.log(amount), Math.log(await cost(amount))]);
  const mean = (axis: 0 | 1): number => points.reduce((sum, point) => sum + point[axis], 0) / points.length;
  const [mx, my] = [mean(0), mean(1)];
  const above = points.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0);
  return above / points.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
}

/** Prints exponents as a table. */
export const printExponents = (rows: readonly (readonly [string, number])[]): void =>
  console.table(rows.map(([what, power]) => ({ 'cost grows with': what, exponent: Number(power.toFixed(2)) })));
