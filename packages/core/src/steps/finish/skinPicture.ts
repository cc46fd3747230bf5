import { defineStep, is, numberField, type ParamSpecs, type ParamsOf, type Resolved } from '../declare';
import { pictureParam, projectionParams } from '../pictureParams';

const whole = is('mapping', 'skin');
const sheet = (p: Resolved): boolean => whole(p) && (Number(p.columns) > 1 || Number(p.rows) > 1);
const number = numberField({ unit: 'count', min: 1, max: 64, slider: [1, 8], whole: true });

const params = {
  file: {
    ...pictureParam,
    help: 'A PNG, where it is transparent the skin is cut out, or a JPEG.',
    default: 'shipped:reef-leaf',
  },
  mapping: {
    type: 'choice',
    label: 'Mapping',
    help: 'Once over the whole skin; repeated around and along it; or projected straight along an axis.',
    options: [
      { value: 'skin', label: 'Once over the skin' },
      { value: 'repeat', label: 'Repeated' },
      { value: 'flat', label: 'Projected' },
    ],
    default: 'skin',
  },
  around: {
    ...numberField({ unit: 'plain', min: 0.01, max: 1000, slider: [0.25, 8] })(
      'Repeats around',
      'How often it comes on the way around; along it, as often as keeps its proportions.',
      1,
    ),
    shown: is('mapping', 'repeat'),
  },
  slide: {
    ...numberField({ unit: 'plain', min: -1000, max: 1000, slider: [-2, 2] })(
      'Offset along',
      'Shifts it along the skin, in its own lengths; animate it and it flows.',
      0,
    ),
    shown: is('mapping', 'repeat'),
  },
  ...projectionParams(is('mapping', 'flat')),
  columns: { ...number('Columns', 'Of a sheet that holds several pictures side by side.', 1), shown: whole },
  rows: { ...number('Rows', 'Of a sheet that holds several pictures one above another.', 1), shown: whole },
  pick: {
    type: 'choice',
    label: 'Choose',
    help: 'Which picture of the sheet: one, or for each path another, in turn or at random.',
    options: [
      { value: 'one', label: 'One of them' },
      { value: 'turn', label: 'Each in turn' },
      { value: 'random', label: 'At random' },
    ],
    default: 'one',
    shown: sheet,
  },
  cell: {
    ...numberField({ unit: 'count', min: 1, max: 4096, slider: [1, 16] })(
      'Cell',
      'Which of the sheet, counted from 1 at the upper left, row by row; the first path’s where each has another. Beyond the last it begins again.',
      1,
      { whole: true },
    ),
    shown: (p: Resolved) => sheet(p) && p.pick !== 'random',
  },
  cutoff: {
    type: 'number',
    unit: 'share',
    label: 'Alpha cutoff',
    help: 'Where the picture is less opaque than this, the skin is cut out.',
    default: 0.5,
    min: 0,
    max: 1,
  },
  tinted: {
    type: 'toggle',
    label: 'Multiply colours',
    help: 'Multiplies the picture by the colours that the skin has; else the picture alone colours it.',
    default: false,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type SkinPictureParams = ParamsOf<typeof params>;

export const skinPicture = defineStep({
  kind: 'skin-picture',
  family: 'finish',
  label: 'Picture on the skin',
  icon: 'M4 16C3 8 8 3 16 4 17 12 12 17 4 16ZM7 13L10 9 12 11 14 8',
  help: 'Puts a picture on a skin: bark, scales, or a leaf whose transparent parts are cut out, one of a sheet if you like. Copies show their items’ pictures; glTF files take them along.',
  takes: ['mesh'],
  gives: ['mesh'],
  params,
  moves: true,
  summary: (p) => (p.file === null ? 'no picture chosen' : p.mapping === 'repeat' ? 'repeated' : 'once'),
  async run(form, p, context) {
    const { runSkinPicture } = await import('./runSkinPicture');
    return runSkinPicture(form, p, context);
  },
});
