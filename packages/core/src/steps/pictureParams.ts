import { shippedOf } from '../scene/shippedFiles';
import { axisParam } from './axisParam';
import {
  type FileParam,
  type NumberParam,
  numberField,
  place,
  type Resolved,
  shownFor,
  type ToggleParam,
} from './declare';

/** The picture of a step. */
export const pictureParam = {
  type: 'file',
  kind: 'picture',
  label: 'Picture',
  help: 'A PNG, with transparency where it has some, or a JPEG.',
  shipped: shippedOf('picture'),
  default: 'shipped:reef-relief',
} as const satisfies FileParam;

const metre = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.1, 5] });

/** Where a picture that is projected straight onto a form lies. @param shown when it is projected */
export function projectionParams(shown: (p: Resolved) => boolean) {
  const own = (p: Resolved): boolean => shown(p) && p.fit !== true;
  return {
    axis: {
      ...axisParam('The axis along which it is projected, towards you: Z from the front, Y from above.', 'z'),
      shown,
    },
    fit: {
      type: 'toggle',
      label: 'Fit to form',
      help: 'Stretches the picture over all that there is at the last frame; else it has a place and size of its own.',
      default: true,
      shown,
    } satisfies ToggleParam,
    ...shownFor(place('at', 'Middle of picture', 'Where its middle lies.', [0, 1, 0]), own),
    width: { ...metre('Width', 'Of the whole picture.', 2), shown: own },
    height: { ...metre('Height', 'Of the whole picture.', 2), shown: own },
    turn: {
      type: 'number',
      unit: 'deg',
      label: 'Turn',
      help: 'Turns the picture about its middle.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
      shown,
    } satisfies NumberParam,
  } as const;
}
