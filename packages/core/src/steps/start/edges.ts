import type { EdgeRun } from '../../geometry/topology/featureEdges';
import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { figure } from '../../format';
import { startWith } from './startWith';

export const edges = defineStep({
  kind: 'edges',
  family: 'start',
  label: 'Mesh edges',
  use: 'From another growth',
  icon: 'M10 3 17 6.5V13.5L10 17 3 13.5V6.5ZM3 6.5 10 10 17 6.5M10 10V17',
  help: 'The edges of the skin of another growth as paths: all of them, or only where its faces meet at an angle.',
  takes: [],
  gives: ['paths'],
  many: true,
  params: {
    growth: { type: 'growth', label: 'Growth', help: 'Whose skin to take.', default: null, fits: ['mesh', 'copies'] },
    angle: {
      type: 'number',
      unit: 'deg',
      label: 'Angle',
      help: 'Edges at which the faces turn by less are left out; 0 takes all.',
      default: 30,
      min: 0,
      max: 180,
    },
    chain: {
      type: 'toggle',
      label: 'Join edges',
      help: 'Joins edges that run on into one path; else each edge is a path of its own.',
      default: true,
    },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${figure(p.angle, 1)}° and more`),
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose skin to take.');
    const { mesh } = await context.other('growth');
    if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
    const [{ chainEdges, featureEdges }, { topologyOf }, { pointAttributes }] = await Promise.all([
      import('../../geometry/topology/featureEdges'),
      import('../../geometry/topology/topology'),
      import('../../surfaces/edit/contourLines'),
    ]);
    const { places, ends } = await featureEdges(mesh, (p.angle * Math.PI) / 180, () => context.yieldNow());
    context.claim('points', ends.length / 2, 'the number of faces of that growth, or raise Angle');
    await context.yieldNow();
    const each = (): EdgeRun[] =>
      Array.from({ length: ends.length / 2 }, (_, e) => ({ points: [ends[2 * e], ends[2 * e + 1]], closed: false }));
    const chains = p.chain ? chainEdges(ends) : each();
    if (chains.length === 0) throw new Problem('No edge turns by that much.', 'Lower Angle.');
    const paths = pathsFrom(
      chains.map(({ points, closed }) => ({
        closed,
        positions: points.flatMap((i) => [places[3 * i], places[3 * i + 1], places[3 * i + 2]]),
      })),
    );
    // The edges know what the skin does: fronts on it, what is measured there.
    const { first } = topologyOf(mesh).weld;
    const named = pointAttributes(
      mesh,
      chains.flatMap(({ points }) => points.map((i) => first[i])),
    );
    return startWith(form, { ...paths, named });
  },
});
