import { REEF_SOUND } from '../../sound/reefName';
import { numberField, type ParamSpecs, type Resolved } from '../declare';

const heard = (p: Resolved): boolean => Number(p.levels) !== 0 && p.levelsBy === 'sound';

const hertz = numberField({ unit: 'hz', min: 1, max: 96000, slider: [20, 12000], shown: heard });

const seconds = numberField({ unit: 's', min: 0, max: 60, slider: [0, 1.5], shown: heard });

/** How levels follow a sound. */
export const soundParams = {
  sound: {
    type: 'file',
    kind: 'sound',
    label: 'Sound',
    help: 'A WAV file. It begins at the first frame of the range; the lowest band moves the first path.',
    shipped: [{ value: REEF_SOUND, label: 'Reef sounding' }],
    default: REEF_SOUND,
    shown: heard,
  },
  low: hertz('Lowest', 'Frequency of the first path.', 40),
  high: hertz('Highest', 'Frequency of the last path.', 6000),
  attack: seconds('Attack', 'Time in which a level rises most of the way.', 0.03),
  release: seconds('Release', 'Time in which it falls most of the way.', 0.25),
  blend: {
    type: 'number',
    unit: 'count',
    label: 'Blend',
    help: 'Neighbouring bands to each side that are mixed in.',
    default: 1,
    min: 0,
    max: 100,
    slider: [0, 10],
    whole: true,
    shown: heard,
  },
  repeat: {
    type: 'toggle',
    label: 'Repeat',
    help: 'Plays the sound over and over; its end rings on into its beginning.',
    default: true,
    shown: heard,
  },
} as const satisfies ParamSpecs;
