/** The frame of each starter that stands for it in the library. */
export const STARTER_FRAMES = {
  'kelp-frond': { name: 'Kelp frond', frame: 100 },
  'anemone-sway': { name: 'Anemone sway', frame: 110 },
  'brain-coral': { name: 'Brain coral', frame: 104 },
  'tether-burn': { name: 'Tether burn', frame: 64 },
  'lantern-wreath': { name: 'Lantern wreath', frame: 30 },
  'sonar-bars': { name: 'Sonar bars', frame: 40 },
} as const satisfies Readonly<Record<string, { name: string; frame: number }>>;
