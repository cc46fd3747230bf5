'use client';

import Tooltip from '@mui/material/Tooltip';
import { type ReactElement, type ReactNode, useRef, useState } from 'react';

/** Milliseconds of rest over something before its help is shown. */
const DELAY = 700;

interface Props {
  help: ReactNode;
  /** Whether it is not to be shown now, as while what it is of is dragged, or stands open. */
  hidden?: boolean;
  children: ReactElement<{ onPointerDown?: (event: React.PointerEvent) => void }>;
}

/** Help that is shown beside the panel, not over its fields; a press closes it until the pointer comes again. */
export function HelpTooltip({ help, hidden = false, children }: Props) {
  const [open, setOpen] = useState(false);
  const element = useRef<HTMLElement>(null);
  const anchor = {
    getBoundingClientRect: (): DOMRect => {
      const own = element.current!.getBoundingClientRect();
      const panel = element.current!.closest('aside')?.getBoundingClientRect();
      return panel ? new DOMRect(panel.left, own.top, panel.width, own.height) : own;
    },
  };
  const shown = open && !hidden;
  return (
    <Tooltip
      ref={element}
      title={hidden ? '' : help}
      placement="right"
      enterDelay={DELAY}
      enterNextDelay={DELAY}
      open={shown}
      onOpen={() => setOpen(true)}
      onClose={() => setOpen(false)}
      onMouseDown={() => setOpen(false)}
      slotProps={{
        // While it fades it is placed anew with each change, for which the page is laid out on the spot.
        popper: { anchorEl: anchor, transition: !hidden },
      }}
    >
      {children}
    </Tooltip>
  );
}
