/** The frame of each starter that stands for it in the library. */
export const STARTER_FRAMES = {
  'kelp-frond': { name: 'Kelp frond', frame: 100 },
  'anemone-sway': { name: 'Anemone sway', frame: 110 },
  'brain-coral': { name: 'Brain coral', frame: 104 },
  'tether-burn': { name: 'Tether burn', frame: 70 },
  'lantern-wreath': { name: 'Lantern wreath', frame: 30 },
  'mooring-chain': { name: 'Mooring chain', frame: 84 },
  'sea-lily': { name: 'Sea-lily', frame: 60 },
  'urchin-head': { name: 'Urchin head', frame: 96 },
  'barnacle-rock': { name: 'Barnacle rock', frame: 84 },
  'eel-run': { name: 'Eel run', frame: 48 },
  'pier-planks': { name: 'Pier planks', frame: 92 },
  'turban-shell': { name: 'Turban shell', frame: 24 },
  'sonar-bars': { name: 'Sonar bars', frame: 62 },
} as const satisfies Readonly<Record<string, { name: string; frame: number }>>;
