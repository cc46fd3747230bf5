import { placeIn } from '../../curves/elements';
import { tipsOf } from '../../curves/tips';
import type { Form } from '../../geometry/form';
import type { Placement } from '../../geometry/joinMeshes';
import { unwritten } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { pathCount, PATHS } from '../../geometry/paths';
import { add, cross, scale } from '../../geometry/vec';
import { Problem } from '../../problem';
import { defineStep, type Resolved } from '../declare';
import { percent } from '../format';
import { byAttributeParams, byValue } from './items';

const RIDERS = ['growth', 'second', 'third'] as const;
const several = (p: Resolved): boolean => p.growth !== null && p.second !== null;

export const tips = defineStep({
  kind: 'tips',
  family: 'place',
  label: 'At the tips',
  icon: 'M3 17C3 11 6 8 10.5 7.5M10.5 7.5A3.2 3.2 0 1 0 17 7.5 3.2 3.2 0 1 0 10.5 7.5',
  help: 'Another growth rides at the growing end of each path, its upward axis along the path: a ball, a cap, a spark.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    growth: {
      type: 'growth',
      label: 'Growth',
      help: 'What rides. Build it about the origin, upwards.',
      default: null,
      item: true,
    },
    second: {
      type: 'growth',
      label: 'Second item',
      help: 'Another that rides at some of the tips.',
      default: null,
      item: true,
      shown: (p) => p.growth !== null,
    },
    third: {
      type: 'growth',
      label: 'Third item',
      help: 'One more that rides at some of the tips.',
      default: null,
      item: true,
      shown: several,
    },
    mix: {
      type: 'choice',
      label: 'Mix',
      help: 'Which rides where: one after the other, path by path, or by what the tips know.',
      options: [
        { value: 'turn', label: 'In turn' },
        { value: 'attribute', label: 'By attribute' },
      ],
      default: 'turn',
      shown: several,
    },
    ...byAttributeParams((p) => several(p) && p.mix === 'attribute'),
    size: {
      type: 'number',
      unit: 'share',
      label: 'Size',
      help: 'Its size against the growth as it is.',
      default: 1,
      min: 0,
      max: 100,
      slider: [0, 3],
      varies: 'path',
    },
    thickness: {
      type: 'toggle',
      label: 'With thickness',
      help: 'Grows and shrinks with the thickness of the path at the tip.',
      default: false,
    },
    ahead: {
      type: 'number',
      unit: 'm',
      label: 'Ahead',
      help: 'Moves it along the path beyond the tip.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-0.5, 0.5],
    },
    turn: {
      type: 'number',
      unit: 'deg',
      label: 'Turn',
      help: 'Turns it about the path; animate it and it spins.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
      varies: 'path',
    },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${percent(p.size)} size`),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth that rides at the tips.');
    const { wholeMesh } = await import('../../geometry/copies');
    const others: Form[] = [];
    for (const name of RIDERS) {
      // Those behind one that is not chosen do not show.
      if (p[name] === null) break;
      others.push(await context.other(name));
    }
    // While a rider itself is too young to have a skin, nothing rides for it.
    const riders = others.map((other) => wholeMesh(other));
    if (riders.every((rider) => rider === null)) return form;
    const { withRiders } = await import('../../geometry/joinMeshes');
    const found = tipsOf(form.paths!);
    const byAttribute = riders.length > 1 && p.mix === 'attribute';
    const values = byAttribute ? pointValues(form.paths!, p.mixBy) : null;
    if (byAttribute && !values) throw unwritten(p.mixBy);
    const which = found.map(({ point, id }) =>
      values ? byValue(values[point], p.mixFrom, riders.length) : id % riders.length,
    );
    context.claim(
      'points',
      which.reduce((sum, k) => sum + (riders[k]?.positions.length ?? 0) / 3, 0),
      'the number of paths, or of faces of what rides',
    );
    const [size, turn] = [context.varied('size'), context.varied('turn')];
    const element = placeIn(PATHS, form.paths!, 'point', pathCount(form.paths!));
    element.u = 1;
    const placements = found.map((tip): Placement => {
      element.id = tip.id;
      element.index = tip.path;
      element.at = tip.point;
      const angle = (turn(element) * Math.PI) / 180;
      const side = cross(tip.tangent, tip.normal);
      return {
        origin: add(tip.position, scale(tip.tangent, p.ahead)),
        x: add(scale(tip.normal, Math.cos(angle)), scale(side, Math.sin(angle))),
        y: tip.tangent,
        size: size(element) * (p.thickness ? tip.size : 1),
      };
    });
    let { mesh } = form;
    for (const [k, rider] of riders.entries()) {
      const own = placements.filter((_, i) => which[i] === k);
      if (rider) mesh = await withRiders(mesh, rider, own, () => context.breathe());
    }
    return { ...form, mesh, surface: form.surface ?? others[0].surface };
  },
});
