import { profileCurve } from '../../geometry/profile';
import { defineStep, numberField } from '../declare';
import { metres } from '../../format';

const COLUMNS = 5;
const degrees = (angle: number): number => (angle * Math.PI) / 180;

const angle = numberField({ unit: 'deg', min: -360, max: 360, slider: [-120, 120] });

export const blade = defineStep({
  kind: 'blade',
  family: 'start',
  label: 'Blade',
  use: 'Forms',
  icon: 'M10 17.5V13M10 13C4 11 5 5 10 2.5 15 5 16 11 10 13ZM10 13V7',
  help: 'A leaf or petal standing on its foot, with a drawn outline, a fold, a cup and a droop: to be copied along paths.',
  takes: [],
  gives: ['mesh'],
  params: {
    length: {
      type: 'number',
      unit: 'm',
      label: 'Length',
      help: 'From foot to tip, stalk included.',
      default: 0.5,
      min: 0.001,
      max: 1000,
      slider: [0.05, 2],
    },
    width: {
      type: 'number',
      unit: 'm',
      label: 'Width',
      help: 'Where the outline is at 100 %.',
      default: 0.14,
      min: 0.001,
      max: 1000,
      slider: [0.02, 1],
    },
    outline: {
      type: 'profile',
      label: 'Outline',
      help: 'Width from the foot of the blade to its tip.',
      min: 0,
      max: 1,
      default: [
        { at: 0, value: 0.1 },
        { at: 0.35, value: 1 },
        { at: 1, value: 0 },
      ],
    },
    stalk: {
      type: 'number',
      unit: 'share',
      label: 'Stalk',
      help: 'Share of the length that is stalk.',
      default: 0.12,
      min: 0,
      max: 0.9,
    },
    fold: angle('Fold', 'Raises both halves about the midline.', 18),
    cup: {
      type: 'number',
      unit: 'share',
      label: 'Cup',
      help: 'How far the edges rise above the middle.',
      default: 0.1,
      min: -2,
      max: 2,
      slider: [-1, 1],
    },
    droop: angle('Droop', 'How far the tip hangs over; more than a full turn curls up. Animate it and it unrolls.', 40),
    thick: {
      type: 'number',
      unit: 'm',
      label: 'Thickness',
      help: 'From face to face.',
      default: 0.006,
      min: 0.0001,
      max: 10,
      slider: [0.001, 0.05],
    },
    rows: {
      type: 'number',
      unit: 'count',
      label: 'Rows',
      help: 'Pieces along: more where it is to be rolled up tightly.',
      default: 32,
      min: 2,
      max: 1000,
      slider: [8, 120],
      whole: true,
    },
  },
  summary: (p) => `${metres(p.length)} long, ${metres(p.width)} wide`,
  async run(form, p) {
    const { withRiders } = await import('../../geometry/joinMeshes');
    const { blade: bladeMesh } = await import('../../surfaces/make/bladeMesh');
    const mesh = bladeMesh({
      length: p.length,
      width: p.width,
      outline: profileCurve(p.outline),
      stalk: p.stalk,
      fold: degrees(p.fold),
      cup: p.cup,
      droop: degrees(p.droop),
      thick: p.thick,
      rows: p.rows,
      columns: COLUMNS,
    });
    return {
      ...form,
      mesh: await withRiders(form.mesh, mesh, [{ origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 }]),
    };
  },
});
