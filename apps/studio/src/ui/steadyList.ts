import type { SelectProps } from '@mui/material/Select';
import type { MouseEvent } from 'react';

/** Pixels within which a pointer has not been moved. */
const STILL = 4;

/** Where the pointer went down on the field whose list it opened, until it is let go. */
let pressedAt: { x: number; y: number } | null = null;

function press({ clientX: x, clientY: y }: MouseEvent): void {
  pressedAt = { x, y };
}

/**
 * A list may be drawn from its field to an option in one stroke. Where it stands over its field, a plain click on a busy
 * page would be such a stroke too, and choose what happens to stand there.
 */
function release(event: MouseEvent): void {
  const at = pressedAt;
  pressedAt = null;
  if (at && Math.hypot(event.clientX - at.x, event.clientY - at.y) < STILL) event.stopPropagation();
}

/** What every list has that opens from a field. */
export const STEADY_LIST: Partial<SelectProps> = {
  onMouseDown: press,
  MenuProps: { slotProps: { list: { onMouseUpCapture: release } } },
};
