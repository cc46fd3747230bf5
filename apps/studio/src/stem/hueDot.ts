import { INK } from '@/ui/theme';

/** How a hue to choose looks. */
export const hueDot = (hue: string, value: string | null) => ({
  width: 18,
  height: 18,
  borderRadius: '9px',
  bgcolor: hue,
  outline: value === hue ? `2px solid ${INK.text}` : 'none',
});
