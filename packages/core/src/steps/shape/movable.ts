/** What a deforming step moves: it takes any of these, and all that are there. */
export const MOVABLE = ['paths', 'mesh', 'points', 'copies'] as const;
