import { defineStep, numberField, type ParamSpecs, type ParamsOf, scopeParam } from '../declare';
import { figure } from '../../format';

const seconds = numberField({ unit: 's', min: -1000, max: 1000, slider: [0, 4] });

const params = {
  by: {
    type: 'choice',
    label: 'Later by',
    help: 'What makes one copy later than another.',
    options: [
      { value: 'front', label: 'When uncovered' },
      { value: 'number', label: 'Its number' },
      { value: 'along', label: 'Its place along' },
      { value: 'distance', label: 'Its distance' },
      { value: 'random', label: 'Chance' },
      { value: 'life', label: 'Its life' },
      { value: 'even', label: 'All alike' },
    ],
    default: 'front',
  },
  time: seconds(
    'Seconds',
    'Later by so much: from each number to the next, over the whole way, for each metre, at most by chance, or after the front.',
    0.1,
    { shown: (p) => p.by !== 'life' },
  ),
  guide: {
    type: 'guide',
    label: 'From',
    help: 'The guide that the distance is measured from; the origin where none is chosen.',
    default: null,
    shown: (p) => p.by === 'distance',
  },
  scope: scopeParam,
  repeat: seconds('Repeats after', 'The item begins again after so long; 0 lets it run as its own keys say.', 0, {
    min: 0,
  }),
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type OffsetParams = ParamsOf<typeof params>;

export const offset = defineStep({
  kind: 'offset',
  family: 'place',
  label: 'Time offset',
  icon: 'M4 16A4 4 0 1 1 4 15.99M4 13.5V16L6 17M13 8A4 4 0 1 1 13 7.99M13 5.5V8L15 9',
  help: 'Each copy shows its item at a moment of its own: later by its number, its place, its distance from a guide, or at random; from its first frame when the front uncovers it; or over its whole life where copies are born and go.',
  takes: ['copies'],
  gives: ['copies'],
  params,
  moves: true,
  wants: (p) => (p.by === 'front' ? ['age'] : []),
  summary: (p) =>
    ({
      front: 'from its first frame as it is uncovered',
      number: `${figure(p.time)} s from each to the next`,
      along: `${figure(p.time)} s over the way`,
      distance: `${figure(p.time)} s a metre`,
      random: `up to ${figure(p.time)} s`,
      life: 'over its life',
      even: `${figure(p.time)} s`,
    })[p.by] ?? '',
  async run(form, p, context) {
    const { runOffset } = await import('./runOffset');
    return runOffset(form, p, context);
  },
});
