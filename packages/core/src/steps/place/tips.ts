import { placeIn } from '../../curves/elements';
import { tipsOf } from '../../curves/tips';
import { type Placement } from '../../geometry/joinMeshes';
import { pathCount, PATHS } from '../../geometry/paths';
import { add, cross, scale } from '../../geometry/vec';
import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { percent } from '../format';

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
    const other = await context.other('growth');
    const { wholeMesh } = await import('../../geometry/copies');
    const rider = wholeMesh(other);
    // While the rider itself is too young to have a skin, there is nothing to ride.
    if (!rider) return form;
    const { withRiders } = await import('../../geometry/joinMeshes');
    const found = tipsOf(form.paths!);
    context.claim(
      'points',
      (rider.positions.length / 3) * found.length,
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
    return { ...form, mesh: withRiders(form.mesh, rider, placements), surface: form.surface ?? other.surface };
  },
});
