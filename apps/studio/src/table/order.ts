/** Numbers of rows in the order of a column's values; rows that have none come last either way. */
export function orderOf(values: Float32Array, way: 'asc' | 'desc'): Uint32Array {
  const sign = way === 'asc' ? 1 : -1;
  return Uint32Array.from(values.keys()).sort((a, b) => {
    const [x, y] = [values[a], values[b]];
    if (Number.isNaN(x) || Number.isNaN(y)) return Number(Number.isNaN(x)) - Number(Number.isNaN(y)) || a - b;
    return sign * (x - y) || a - b;
  });
}
