/** Whether an error says that the browser's storage is full. */
export const isQuota = (error: unknown): boolean =>
  /quota/i.test(`${(error as Error | null)?.name} ${(error as Error | null)?.message}`);
