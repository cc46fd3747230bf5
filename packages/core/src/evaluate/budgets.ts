/** What a scene may use before a step stops with a message. */
export interface Budgets {
  points: number;
  faces: number;
  copies: number;
  /** Memory for kept results, bytes. */
  cacheBytes: number;
}

export const DEFAULT_BUDGETS: Budgets = {
  points: 4_000_000,
  faces: 4_000_000,
  copies: 1_000_000,
  cacheBytes: 256 * 1024 * 1024,
};
