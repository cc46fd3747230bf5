import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { metres } from '../../format';
import { MOVABLE } from './movable';

export const settle = defineStep({
  kind: 'settle',
  family: 'shape',
  label: 'Settle',
  icon: 'M3 15C6 11 9 17 12 13 14 11 16 12 17 13M10 3V8M7.8 6 10 8.2 12.2 6',
  help: 'Puts paths, points, copies or a skin onto the skin of another growth: at its nearest place, or straight down or along another direction.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    growth: {
      type: 'growth',
      label: 'Onto',
      help: 'The growth whose skin it is put onto.',
      default: null,
      fits: ['mesh', 'copies'],
    },
    way: {
      type: 'choice',
      label: 'Direction',
      help: 'To the nearest place of the skin, or straight until it meets it; what meets nothing stays.',
      options: [
        { value: 'down', label: 'Straight down' },
        { value: 'nearest', label: 'To the nearest' },
        { value: 'front', label: 'To the back' },
        { value: 'side', label: 'To the left' },
      ],
      default: 'down',
    },
    height: {
      type: 'number',
      unit: 'm',
      label: 'Height',
      help: 'Above the skin; below 0 in it.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-0.5, 0.5],
      varies: 'along',
    },
    amount: {
      type: 'number',
      unit: 'share',
      label: 'Amount',
      help: 'How far on the way to the skin it goes.',
      default: 1,
      min: 0,
      max: 1,
      varies: 'along',
    },
    keep: {
      type: 'toggle',
      label: 'Keep shape',
      help: 'What lies higher stays that much higher: the form is laid over the skin as it stands over level ground.',
      default: false,
      shown: (p) => p.way === 'down',
    },
  },
  summary: (p) =>
    p.growth === null ? 'no growth chosen' : p.height === 0 ? 'on the skin' : `${metres(p.height)} above`,
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose skin it settles on.');
    const [{ eachPoint }, { settler }, { wholeMesh }, { treeInTime }] = await Promise.all([
      import('./eachPoint'),
      import('./runSettle'),
      import('../../geometry/copies'),
      import('../../geometry/search/meshTree'),
    ]);
    const mesh = wholeMesh(await context.other('growth'));
    if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
    await treeInTime(mesh, () => context.yieldNow());
    const [height, amount] = [context.varied('height'), context.varied('amount')];
    const onto = settler(mesh, p.way, p.keep);
    return eachPoint(form, context, (place, element) => onto(place, height(element), amount(element)));
  },
});
