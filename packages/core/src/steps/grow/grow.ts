import { cutPaths } from '../../curves/cut';
import { withFrames } from '../../curves/pathFrames';
import { defineStep } from '../declare';
import { percent } from '../format';

export const grow = defineStep({
  kind: 'grow',
  family: 'grow',
  label: 'Grow',
  help: 'Shows the part of each path between two shares of its length. Animate To and the path grows at an even pace; animate From and it is eaten away.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    from: {
      type: 'number',
      unit: 'share',
      label: 'From',
      help: 'Share of the length at which the visible part begins.',
      default: 0,
      min: 0,
      max: 1,
    },
    to: {
      type: 'number',
      unit: 'share',
      label: 'To',
      help: 'Share of the length at which the visible part ends.',
      default: 1,
      min: 0,
      max: 1,
    },
  },
  summary: (p) => (p.from > 0 ? `${percent(p.from)} to ${percent(p.to)} there now` : `${percent(p.to)} there now`),
  run(form, p) {
    // Frames come from the whole path, so that a cut never rolls what stays.
    const paths = withFrames(form.paths!);
    return { ...form, paths: cutPaths(paths, () => [p.from, p.to]) };
  },
});
