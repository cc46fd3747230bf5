/** The frame of each starter that stands for it in the library. */
export const STARTER_FRAMES: Readonly<Record<string, { name: string; frame: number }>> = {
  'kelp-frond': { name: 'Kelp frond', frame: 100 },
};
