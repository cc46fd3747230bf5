import { defineStep, numberField, type ParamSpecs, place } from '../declare';
import { metres } from '../../format';

const length = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.1, 4] });
const share = numberField({ unit: 'share', min: 0, max: 1 });

const params = {
  width: length('Width', 'From left to right.', 1.6),
  height: length('Height', 'From the ground to its top.', 1),
  depth: length('Depth', 'From front to back.', 1.3),
  pieces: {
    type: 'number',
    unit: 'count',
    label: 'Pieces',
    help: 'Squares along each of the six sides that its surface is laid out on.',
    default: 48,
    min: 2,
    max: 400,
    slider: [8, 120],
    whole: true,
  },
  sides: {
    type: 'number',
    unit: 'count',
    label: 'Broken sides',
    help: 'Flat sides along which it has broken, in directions of chance.',
    default: 16,
    min: 0,
    max: 200,
    slider: [0, 40],
    whole: true,
  },
  edges: share('Sharp edges', 'From worn round to sharp between its broken sides.', 0.6),
  lumps: share('Lumps', 'Large bulges and hollows, against its radius.', 0.12),
  rough: share('Roughness', 'Fine relief, against its radius.', 0.05),
  grain: numberField({ unit: 'share', min: 0.01, max: 2 })(
    'Grain',
    'Size of the fine relief, against its radius.',
    0.3,
    {
      slider: [0.05, 1],
      shown: (p) => Number(p.rough) > 0,
    },
  ),
  base: share('Flat below', 'Share of its height that is cut off level, so that it lies firmly.', 0.2, { max: 0.45 }),
  ...place('at', 'Place', 'Where it lies; its lowest place is on the ground there.', [0, 0, 0]),
} as const satisfies ParamSpecs;

export const rock = defineStep({
  kind: 'rock',
  family: 'start',
  held: true,
  label: 'Rock',
  use: 'Forms',
  icon: 'M2.5 16 4 9 8 4.5 13 5.5 17 10.5 17.5 16ZM8 4.5 9.5 10 4 9M9.5 10 17 10.5M9.5 10 8.5 16',
  help: 'A boulder that lies on the ground: broken sides, edges sharp or worn, lumps and fine relief. Another seed is another boulder.',
  takes: [],
  gives: ['mesh'],
  coarse: { pieces: 0.5 },
  params,
  dress: { roughness: 0.85, colors: ['#232b30', '#59635f', '#aeb09a'] },
  summary: (p) => `${metres(p.width)} × ${metres(p.depth)}, ${metres(p.height)} high`,
  async run(form, p, context) {
    const [{ rock: made }, { withRiders }] = await Promise.all([
      import('../../surfaces/make/rockMesh'),
      import('../../geometry/joinMeshes'),
    ]);
    context.claim('faces', 12 * p.pieces * p.pieces, 'Pieces');
    const mesh = await made({ ...p, seed: context.seed }, () => context.yieldNow());
    const here = { origin: [p.atX, p.atY, p.atZ], x: [1, 0, 0], y: [0, 1, 0], size: 1 } as const;
    return { ...form, mesh: await withRiders(form.mesh, mesh, [here]) };
  },
});
