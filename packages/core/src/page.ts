// What the page computes itself, where it is asked for: kept apart so that it is loaded then.
export { falseColours, putFalseColour, VALUE_SCALE } from './geometry/falseColours';
export { retimed } from './scene/retime';
export { meshWith } from './geometry/mesh';
export { rayHit } from './geometry/nearest';
export { treeOf } from './geometry/meshTree';
export { spreadOf } from './geometry/sheets';
export { maskedAs } from './steps/shape/mask';
export { type Dab, Painter } from './surfaces/painter';
