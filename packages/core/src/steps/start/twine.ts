import { Problem } from '../../problem';
import { defineStep, numberField, type NumberParam } from '../declare';
import { formatCount, metres } from '../../format';
import { startWith } from './startWith';

const share = numberField({ unit: 'share', min: 0, max: 1 });
const length = numberField({ unit: 'm', min: 0, max: 1000 });
const lengthOf = (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam =>
  length(label, help, value, more);

export const twine = defineStep({
  kind: 'twine',
  family: 'start',
  label: 'Twining tendrils',
  use: 'From another growth',
  icon: 'M10 18V2M6 16C8 18 13 15.5 14 13.5 15 11.5 6 12 6 10 6 8 14 8.5 14 6.5 14 5 9 4 7 5.5',
  help: 'Tendrils that wind round the paths of another growth, outside of its skin, and move with it. Feeling tips after Grow lets their ends look for a hold.',
  takes: [],
  gives: ['paths'],
  params: {
    growth: {
      type: 'growth',
      label: 'Around',
      help: 'The growth whose paths they wind round. Where it has a skin they lie outside of that.',
      default: null,
      fits: ['paths'],
    },
    count: {
      type: 'number',
      unit: 'count',
      label: 'Tendrils',
      help: 'How many wind round each path, spread evenly about it.',
      default: 2,
      min: 1,
      max: 200,
      slider: [1, 12],
      whole: true,
    },
    pitch: lengthOf('Pitch', 'Length along the path in which they go round once.', 0.4, {
      min: 0.001,
      slider: [0.05, 2],
      varies: 'path',
    }),
    clearance: lengthOf(
      'Clearance',
      'From the middle of the tendril to the skin: as much as it is thick itself.',
      0.03,
      {
        slider: [0, 0.3],
      },
    ),
    hand: {
      type: 'choice',
      label: 'Winding',
      help: 'Which way they go round on their way up: to the right as most climbers do, to the left, or both in turn.',
      options: [
        { value: 'right', label: 'To the right' },
        { value: 'left', label: 'To the left' },
        { value: 'both', label: 'Both in turn' },
      ],
      default: 'right',
    },
    from: share('From', 'Share of the path at which they begin.', 0),
    to: share('To', 'Share of the path at which they end.', 1),
    start: {
      type: 'number',
      unit: 'deg',
      label: 'Begins at',
      help: 'Where round the path the first of them begins.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    points: {
      type: 'number',
      unit: 'count',
      label: 'Points per turn',
      help: 'How many points each turn is made of.',
      default: 24,
      min: 4,
      max: 500,
      slider: [8, 60],
      whole: true,
    },
  },
  summary: (p) => `${formatCount(p.count, 'tendril')}, once in ${metres(p.pitch)}`,
  async run(form, p, context) {
    const { pathsFrom, pathCount } = await import('../../geometry/paths');
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth that they wind round.');
    const host = await context.other('growth');
    if (!host.paths || pathCount(host.paths) === 0)
      throw new Problem('The chosen growth has no paths.', 'Choose one that begins with a path.');
    const { twineAround } = await import('../../curves/twine');
    const { wholeMesh } = await import('../../geometry/copies');
    const { hash } = await import('../../fields/random');
    const { treeInTime } = await import('../../geometry/search/meshTree');
    const mesh = wholeMesh(host);
    if (mesh) await treeInTime(mesh, () => context.yieldNow());
    const pitch = context.varied('pitch');
    const found: { positions: number[]; id: number }[] = [];
    let points = 0;
    for (let path = 0; path < pathCount(host.paths); path++)
      for (let k = 0; k < p.count; k++) {
        await context.yieldNow();
        const id = path * p.count + k;
        const own = { id, index: id, count: p.count * pathCount(host.paths), u: 0, read: () => null };
        const made = twineAround(host.paths, path, mesh && mesh.indices.length > 0 ? mesh : null, {
          clearance: p.clearance,
          pitch: Math.max(0.001, pitch(own)),
          hand: p.hand === 'left' || (p.hand === 'both' && k % 2 === 1) ? -1 : 1,
          from: p.from,
          to: p.to,
          start: (p.start * Math.PI) / 180 + (2 * Math.PI * k) / p.count,
          points: p.points,
        });
        if (!made) continue;
        points += made.length / 3;
        context.claim('points', points, 'Tendrils or Points per turn');
        // As long as the host is the same growth, each keeps its number.
        found.push({ positions: made, id: hash(host.paths.ids[path], k) });
      }
    return startWith(form, pathsFrom(found));
  },
});
