import { defineStep, place } from '../declare';
import { axisParam, axisOf } from '../axisParam';
import { figure } from '../../format';
import { withSkin } from './withSkin';

const angle = (label: string, help: string, value: number) =>
  ({
    type: 'number',
    unit: 'deg',
    label,
    help,
    default: value,
    min: -36000,
    max: 36000,
    slider: [-360, 360],
    varies: 'path',
    group: 'Angle',
  }) as const;

export const lathe = defineStep({
  kind: 'lathe',
  family: 'skin',
  label: 'Lathe',
  icon: 'M7 3C7 6 4 8 4 12S7 16 7 17H13C13 16 16 15 16 12S13 6 13 3M7 3A3 1 0 0 0 13 3 3 1 0 0 0 7 3M10 1V19',
  help: 'Turns each path about an axis, wholly or in part: vases, shells, bells and rings. The path is the profile. With a rise it winds like a screw.',
  takes: ['paths'],
  gives: ['mesh'],
  parts: { Screw: ['rise'], Ends: ['toAxis', 'caps'] },
  params: {
    axis: axisParam('About what the paths are turned.'),
    ...place('axis', 'Through', 'A point that the axis goes through.', [0, 0, 0]),
    from: angle('From', 'Angle at which the skin begins.', 0),
    to: angle('To', 'Angle at which it ends; animate it and the skin grows round the axis.', 360),
    sides: {
      type: 'number',
      unit: 'count',
      label: 'Sides',
      help: 'Faces in a full turn.',
      default: 64,
      min: 3,
      max: 2048,
      slider: [3, 128],
      whole: true,
    },
    crease: {
      type: 'number',
      unit: 'deg',
      label: 'Smoothing angle',
      help: 'Corners of the profile that turn by more keep a hard edge.',
      default: 30,
      min: 0,
      max: 180,
    },
    rise: {
      type: 'number',
      unit: 'm',
      label: 'Rise',
      help: 'Way along the axis for each full turn; then more than one turn is possible.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-2, 2],
    },
    toAxis: {
      type: 'toggle',
      label: 'Close to the axis',
      help: 'Joins the ends of open paths to the axis, square to it: a closed bottom and lid.',
      default: false,
    },
    caps: {
      type: 'toggle',
      label: 'Close cut faces',
      help: 'Fills the faces at which a turn begins and ends, where the path is closed or ends on the axis.',
      default: true,
    },
  },
  summary: (p) => `${figure(p.to - p.from, 1)}° about ${p.axis.toUpperCase()}`,
  async run(form, p, context) {
    const [{ latheMesh }, { placeIn }, { PATHS, pathCount }] = await Promise.all([
      import('../../surfaces/sweep/latheMesh'),
      import('../../curves/elements'),
      import('../../geometry/paths'),
    ]);
    const paths = form.paths!;
    const [from, to] = [context.varied('from'), context.varied('to')];
    const element = placeIn(PATHS, paths, 'point', pathCount(paths));
    const mesh = await latheMesh(
      paths,
      {
        origin: [p.axisX, p.axisY, p.axisZ],
        axis: axisOf(p.axis),
        turnOf: (path) => {
          element.id = paths.ids[path];
          element.index = path;
          element.at = paths.offsets[path];
          const begin = (from(element) * Math.PI) / 180;
          return { from: begin, turn: (to(element) * Math.PI) / 180 - begin };
        },
        rise: p.rise,
        sides: p.sides,
        crease: (p.crease * Math.PI) / 180,
        toAxis: p.toAxis,
        caps: p.caps,
      },
      {
        claim: (vertices, faces) => {
          context.claim('points', vertices, 'Sides, or Points of the path');
          context.claim('faces', faces, 'Sides, or Points of the path');
        },
        yieldNow: () => context.yieldNow(),
      },
    );
    return withSkin(form, mesh);
  },
});
