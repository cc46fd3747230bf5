/** How the surface of a growth takes the light. */
export interface Surface {
  /** 0 mirror-like, 1 matt. */
  roughness: number;
  /** Linear RGB of the light that glowing parts give off. */
  glowColor: [number, number, number];
  /** How far that light reaches along the surface from the tips, metres; 0 where tips give off none. */
  glowReach: number;
  /** The picture on it, which its colours are multiplied by; null where there is none. */
  picture: SkinPicture | null;
}

/** A picture on a skin, by texture coordinates. */
export interface SkinPicture {
  /** The file that holds it, as steps name files. */
  file: string;
  /** Alpha cutoff, 0..1. */
  cutoff: number;
}

/** The surface of what no step has finished. */
export const PLAIN_SURFACE: Surface = { roughness: 0.6, glowColor: [1, 0.55, 0.35], glowReach: 0, picture: null };
