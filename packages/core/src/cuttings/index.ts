import { ALONE } from './alone';
import type { Bed, Cutting, Planting } from './cutting';
import { FUSES } from './fuses';
import { ON_FORMS } from './onForms';
import { ON_PATHS } from './onPaths';
import { PIECES, VEINS } from './pieces';

export { type Bed, type Cutting, type Planting };
export { aside, plantIn } from './plant';
export { stepsShown } from './stepsShown';

/** The cuttings that ship, those that begin by themselves first. */
export const CUTTINGS: readonly Cutting[] = [...ALONE, ...FUSES, ...PIECES, ...ON_PATHS, ...ON_FORMS, VEINS];

export { STEP_WORDS } from '../steps/words';
