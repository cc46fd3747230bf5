import type { Mesh } from '../../geometry/mesh';
import { CHAINS, sizesOf } from '../../surfaces/make/chainStandards';
import { defineStep, type NumberParam, place, type Resolved, type StepContext, numberField } from '../declare';
import { metres } from '../../format';
import { letterParams, letters } from './letters';

const ROUND = ['ball', 'ring', 'cylinder', 'cone'];
const is =
  (...kinds: string[]) =>
  (p: Resolved): boolean =>
    kinds.includes(String(p.which));

const lengthField = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.01, 2] });
const length = (label: string, help: string, value: number, shown: (p: Resolved) => boolean): NumberParam =>
  lengthField(label, help, value, { shown });

const ownLink = (p: Resolved): boolean => p.which === 'link' && p.standard === 'own';

export const solid = defineStep({
  kind: 'solid',
  family: 'start',
  held: true,
  label: 'Solid',
  use: 'Forms',
  icon: 'M10 2.5 16.5 6V14L10 17.5 3.5 14V6ZM3.5 6 10 9.5 16.5 6',
  help: 'A ball, box, sheet, ring, cylinder, cone, crystal, chain link, letters or one of the five Platonic solids: to be copied along paths, to ride at tips, or to lend its edges.',
  takes: [],
  gives: ['mesh'],
  coarse: { pieces: 0.5, sides: 0.5 },
  params: {
    which: {
      type: 'choice',
      label: 'Shape',
      help: 'Cylinder, cone, crystal, sheet and letters stand on the ground; the others lie about their middle.',
      options: [
        { value: 'ball', label: 'Ball' },
        { value: 'box', label: 'Box' },
        { value: 'sheet', label: 'Sheet' },
        { value: 'ring', label: 'Ring' },
        { value: 'cylinder', label: 'Cylinder' },
        { value: 'cone', label: 'Cone' },
        { value: 'crystal', label: 'Crystal' },
        { value: 'link', label: 'Chain link' },
        { value: 'letters', label: 'Letters' },
        { value: 'tetrahedron', label: 'Tetrahedron' },
        { value: 'octahedron', label: 'Octahedron' },
        { value: 'dodecahedron', label: 'Dodecahedron' },
        { value: 'icosahedron', label: 'Icosahedron' },
      ],
      default: 'ball',
    },
    radius: length(
      'Radius',
      'From its middle to its surface, or to its corners.',
      0.25,
      (p) => !['box', 'sheet', 'link', 'letters'].includes(String(p.which)),
    ),
    standard: {
      type: 'choice',
      label: 'Made to',
      help: 'A published chain, its sizes in millimetres, or sizes of your own.',
      options: CHAINS.map(({ value, label }) => ({ value, label })),
      default: 'own',
      shown: is('link'),
    },
    wire: length(
      'Wire',
      'Diameter of the wire.',
      0.05,
      (p) => p.which === 'link' && !sizesOf(p.standard as string, 1)?.wire,
    ),
    innerLength: length('Inner length', 'Of the opening: a chain is so much longer with each link.', 0.2, ownLink),
    innerWidth: length('Inner width', 'Of the opening.', 0.075, ownLink),
    text: { ...letterParams.text, shown: is('letters') },
    font: { ...letterParams.font, shown: is('letters') },
    spacing: { ...letterParams.spacing, shown: is('letters') },
    width: length('Width', 'From left to right.', 0.5, is('box', 'sheet')),
    height: length(
      'Height',
      'From bottom to top; of letters, of a line.',
      0.5,
      is('box', 'sheet', 'cylinder', 'cone', 'crystal', 'letters'),
    ),
    depth: length('Depth', 'From front to back.', 0.5, is('box', 'letters')),
    thick: length('Thickness', 'Radius of the ring itself.', 0.06, is('ring')),
    point: {
      type: 'number',
      unit: 'share',
      label: 'Point',
      help: 'Share of the height that tapers to the point.',
      default: 0.35,
      min: 0,
      max: 1,
      shown: is('crystal'),
    },
    sides: {
      type: 'number',
      unit: 'count',
      label: 'Sides',
      help: 'Corners once round.',
      default: 32,
      min: 3,
      max: 512,
      slider: [3, 64],
      whole: true,
      shown: is(...ROUND, 'crystal', 'link'),
    },
    pieces: {
      type: 'number',
      unit: 'count',
      label: 'Pieces',
      help: 'Squares from side to side, and from bottom to top.',
      default: 24,
      min: 1,
      max: 1000,
      slider: [1, 100],
      whole: true,
      shown: is('sheet'),
    },
    ...place('at', 'Place', 'Where it stands.', [0, 0, 0]),
  },
  summary: (p) => {
    const link = sizesOf(p.standard, p.wire)?.innerLength ?? p.innerLength;
    const sizes: Partial<Record<typeof p.which, number>> = { box: p.width, sheet: p.width, letters: p.height, link };
    return `${p.which}, ${metres(sizes[p.which] ?? p.radius)}`;
  },
  async run(form, p, context) {
    const { withRiders } = await import('../../geometry/joinMeshes');
    context.claim('points', p.sides * p.sides, 'Sides');
    const { ball, box, crystal, cylinder, link, platonic, sheet, torus } = await import('../../surfaces/make/solids');
    const chain = { ...p, ...sizesOf(p.standard, p.wire) };
    const make: Record<typeof p.which, () => Mesh | Promise<Mesh>> = {
      ball: () => ball(p.radius, p.sides),
      box: () => box(p.width, p.height, p.depth),
      ring: () => torus(p.radius, Math.min(p.thick, p.radius), p.sides),
      cylinder: () => cylinder(p.radius, p.radius, p.height, p.sides),
      cone: () => cylinder(p.radius, 0, p.height, p.sides),
      link: () => link(chain.wire, chain.innerLength, chain.innerWidth, p.sides),
      sheet: () => sheet(p.width, p.height, p.pieces),
      crystal: () => crystal(p.radius, p.height, p.point, p.sides),
      letters: () => solidLetters(p, context),
      tetrahedron: () => platonic('tetrahedron', p.radius),
      octahedron: () => platonic('octahedron', p.radius),
      dodecahedron: () => platonic('dodecahedron', p.radius),
      icosahedron: () => platonic('icosahedron', p.radius),
    };
    const mesh = await make[p.which]();
    const here = { origin: [p.atX, p.atY, p.atZ], x: [1, 0, 0], y: [0, 1, 0], size: 1 } as const;
    const pitch = p.which === 'link' ? chain.innerLength : null;
    return { ...form, mesh: await withRiders(form.mesh, mesh, [here]), pitch };
  },
});

/** Letters as solids that stand on the ground, their middle over the origin. */
async function solidLetters(
  p: { text: string; font: string | null; spacing: number; height: number; depth: number },
  context: StepContext,
): Promise<Mesh> {
  const [{ regionsOf }, { plateOf }] = await Promise.all([
    import('../../outline/region'),
    import('../../surfaces/sweep/extrudePlate'),
  ]);
  const flat = (await letters(p, context)).map(({ points }) => points.map((x) => x * p.height));
  let [left, right, low] = [Infinity, -Infinity, Infinity];
  for (const points of flat)
    for (let i = 0; i < points.length; i += 2) {
      [left, right] = [Math.min(left, points[i]), Math.max(right, points[i])];
      low = Math.min(low, points[i + 1]);
    }
  const plane = { origin: [-(left + right) / 2, -low, 0], x: [1, 0, 0], y: [0, 1, 0] } as const;
  return plateOf(regionsOf(flat), p.depth, true, plane);
}
