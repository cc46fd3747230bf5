import { defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { pictureParam, projectionParams } from '../pictureParams';

const value = numberField({ unit: 'plain', min: -1e6, max: 1e6, slider: [-1, 1] });

const params = {
  file: pictureParam,
  mapping: {
    type: 'choice',
    label: 'Mapping',
    help: 'Projected straight along an axis; along the skin, as its texture coordinates say; or from the first path at the left to the last, each from the bottom up.',
    options: [
      { value: 'flat', label: 'Projected' },
      { value: 'skin', label: 'Along the skin' },
      { value: 'paths', label: 'Path by path' },
    ],
    default: 'flat',
  },
  ...projectionParams(is('mapping', 'flat')),
  beyond: {
    type: 'choice',
    label: 'Outside',
    help: 'What holds beyond the edges of the picture.',
    options: [
      { value: 'nothing', label: 'Nothing' },
      { value: 'edge', label: 'Its edge' },
      { value: 'repeat', label: 'Repeat' },
    ],
    default: 'edge',
  },
  channel: {
    type: 'choice',
    label: 'Channel',
    help: 'What of each pixel is read: how bright it is, one of its colours, or how opaque it is.',
    options: [
      { value: 'brightness', label: 'Brightness' },
      { value: 'red', label: 'Red' },
      { value: 'green', label: 'Green' },
      { value: 'blue', label: 'Blue' },
      { value: 'opacity', label: 'Opacity' },
    ],
    default: 'brightness',
  },
  low: value('Output minimum', 'Value where the channel is 0: black, or transparent.', 0),
  high: value('Output maximum', 'Value where the channel is 1: white, or opaque.', 1),
  tint: {
    type: 'toggle',
    label: 'Take its colours',
    help: 'Skins get the colours of the picture, copies are tinted with them. A Finish after it colours over them.',
    default: false,
  },
  name: {
    type: 'text',
    label: 'Attribute name',
    help: 'Name of the attribute; “picture” where it is empty.',
    default: '',
    most: 40,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type PictureValuesParams = ParamsOf<typeof params>;

/** The name under which the values are kept. */
export const pictureKeptAs = (p: { name: string }): string => p.name.trim() || 'picture';

export const pictureValues = defineStep({
  kind: 'picture-values',
  family: 'shape',
  label: 'Values from a picture',
  icon: 'M3 4H17V16H3ZM3 14L8 9 12 13 14 11 17 14M13 7.5H13.1',
  help: 'Reads a picture at every place and keeps what it finds as an attribute: height for Displace, density for Scatter, weight for Falloff, levels for Grow, sizes for copies. Skins and copies can take its colours as well.',
  takes: [],
  takesOne: ['mesh', 'paths', 'points', 'copies'],
  gives: [],
  params,
  parts: { Range: ['low', 'high'] },
  moves: true,
  writes: (p) => [pictureKeptAs(p)],
  summary: (p) => (p.file === null ? 'no picture chosen' : `${p.channel} as ${pictureKeptAs(p)}`),
  async run(form, p, context) {
    const { runPictureValues } = await import('./runPictureValues');
    return runPictureValues(form, p, context);
  },
});
