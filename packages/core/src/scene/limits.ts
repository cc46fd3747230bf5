/** What a document may hold. Schema, fields and the check of every change read it here. */
export const LIMITS = {
  /** Characters of a name, of a formula, of a text that no declaration bounds. */
  name: 120,
  attribute: 40,
  formula: 500,
  text: 4000,
  growths: 500,
  steps: 200,
  groups: 200,
  markers: 1000,
  guides: 500,
  files: 200,
  palette: 32,
  /** Keys of one track. */
  keys: 10_000,
  /** Entries of a gradient or a profile; anchors of a drawn path. */
  stops: 200,
  anchors: 50_000,
  /** Strokes of a mask, and numbers in the points of all of them. */
  strokes: 2000,
  strokeNumbers: 400_000,
  /** Radius of a brush, metres. */
  brush: 1000,
  /** First and last frame that the range and markers reach, and keys. */
  frame: 100_000,
  keyFrame: 1_000_000,
  /** Coordinates, metres. */
  reach: 100_000,
  /** Thickness factor and lean of an anchor, degrees. */
  anchorSize: 100,
  anchorLean: 36_000,
  /** How far an easing curve may overshoot. */
  easeReach: 1000,
  /** The most that any number may differ by, and how often noise may change along a path. */
  vary: 1e6,
  waves: 1000,
  fps: [1, 240],
  /** Text of a scene file, characters. */
  fileText: 64_000_000,
  /** Bytes of one file that a step reads. */
  fileBytes: 128_000_000,
  /** Bytes that all entries of a zip come to, unpacked; scenes in one zip. */
  zipBytes: 256_000_000,
  zipScenes: 500,
} as const;
