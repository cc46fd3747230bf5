/** From 0 at 0 to 1 at 1, level at both ends; 0 before and 1 beyond. */
export const smoothstep = (t: number): number => {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
};
