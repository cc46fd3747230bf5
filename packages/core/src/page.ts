// What the page computes itself, where it is asked for: kept apart so that it is loaded then.
export { falseColours, putFalseColour, VALUE_SCALE } from './geometry/falseColours';
export { reefWav } from './sound/reef';
export { retimeScene } from './scene/retimeScene';
export { meshWith } from './geometry/mesh';
export { rayHit } from './geometry/search/nearest';
export { treeOf } from './geometry/search/meshTree';
export { spreadOf } from './geometry/sheets';
export { maskedAs } from './steps/shape/mask';
export { type Dab, Painter } from './surfaces/edit/maskPainter';
