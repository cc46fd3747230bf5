'use client';

import Box from '@mui/material/Box';
import { firstSize, limitsOf, type Part, setSize, useSizes } from '@/state/storage/panelSizes';
import { useDrag } from './drag';
import { INK } from './theme';

interface Props {
  part: Part;
  /** What lies on the side that is drawn. */
  label: string;
  /** Which edge of its box it lies on. */
  edge: 'right' | 'bottom' | 'top';
}

/**
 * The edge of a part of the studio: drag it, or step it with the arrow keys; a double click, or Enter, sets it back. After the pattern
 * for window splitters in the W3C's ARIA Authoring Practices.
 */
export function Divider({ part, label, edge }: Props) {
  const size = useSizes((sizes) => sizes[part]) ?? firstSize(part);
  const upright = edge === 'right';
  const grows = edge === 'top' ? -1 : 1;
  /** As large as it is now, which may be as its content has it. */
  const measured = (divider: Element): number => {
    const { width, height } = divider.parentElement!.getBoundingClientRect();
    return upright ? width : height;
  };
  const drag = useDrag<void, number>({
    take: (_, { element }) => measured(element),
    move: (_, { by }, from) => setSize(part, from + grows * (upright ? by.x : by.y)),
    end: (_, from, ending) => ending === 'taken back' && setSize(part, from),
  });
  const [least, most] = limitsOf(part, typeof window === 'undefined' ? [1280, 800] : [innerWidth, innerHeight]);
  return (
    <Box
      role="separator"
      tabIndex={0}
      aria-label={label}
      aria-orientation={upright ? 'vertical' : 'horizontal'}
      aria-valuenow={Math.round(size)}
      aria-valuemin={least}
      aria-valuemax={most}
      {...drag()}
      onDoubleClick={() => setSize(part, null)}
      onKeyDown={(event) => {
        const step = { ArrowLeft: -16, ArrowUp: -16, ArrowRight: 16, ArrowDown: 16 }[event.key];
        if (step) setSize(part, measured(event.currentTarget) + grows * step);
        else if (event.key === 'Home') setSize(part, least);
        else if (event.key === 'End') setSize(part, most);
        else if (event.key === 'Enter') setSize(part, null);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
      sx={{
        position: 'absolute',
        zIndex: 3,
        touchAction: 'none',
        cursor: upright ? 'col-resize' : 'row-resize',
        ...(upright
          ? { top: 0, bottom: 0, right: -4, width: 7 }
          : { left: 0, right: 0, height: 7, [edge]: edge === 'top' ? -4 : -3 }),
        '&:hover, &:focus-visible': { bgcolor: `${INK.sprout}55`, outline: 'none' },
      }}
    />
  );
}
