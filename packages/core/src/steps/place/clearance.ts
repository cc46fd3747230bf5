import { defineStep } from '../declare';
import { metres } from '../../format';

export const clearance = defineStep({
  kind: 'clearance',
  family: 'place',
  label: 'Clearance',
  icon: 'M3 7H8V13H3ZM12 7H17V13H12ZM10 4V16',
  help: 'Keeps copies from standing in each other: those that come later, or are smaller, are shrunk until they are clear, or left out. It goes by the boxes of the items at the last frame.',
  takes: ['copies'],
  gives: ['copies'],
  params: {
    room: {
      type: 'number',
      unit: 'm',
      label: 'Smallest gap between copies',
      help: 'That is kept free between any two.',
      default: 0,
      min: 0,
      max: 100,
      slider: [0, 0.2],
    },
    by: {
      type: 'choice',
      label: 'By',
      help: 'What becomes of a copy that is in the way.',
      options: [
        { value: 'shrink', label: 'Shrinking' },
        { value: 'thin', label: 'Leaving out' },
      ],
      default: 'shrink',
    },
    first: {
      type: 'choice',
      label: 'First come',
      help: 'Which copies have their room before others: in their order, or the largest first by the size that they have here, so that smaller ones fill what is left.',
      options: [
        { value: 'order', label: 'In their order' },
        { value: 'largest', label: 'The largest' },
      ],
      default: 'order',
    },
  },
  summary: (p) => `${p.by === 'thin' ? 'leaves out' : 'shrinks'}, ${metres(p.room)} free`,
  async run(form, p, context) {
    const { seats } = form;
    if (!seats) return form;
    const { runClearance } = await import('./runClearance');
    return { ...form, seats: await runClearance(seats, p.room, p.by === 'shrink', p.first === 'largest', context) };
  },
});
