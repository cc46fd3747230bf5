/** The name by which scenes call the font that comes with Uvrex: Bricolage Grotesque, extra bold, Latin letters. */
export const SHIPPED_FONT = 'shipped:bricolage';
