/** The name by which scenes call the sound that comes with Uvrex. */
export const REEF_SOUND = 'shipped:reef-sounding';
