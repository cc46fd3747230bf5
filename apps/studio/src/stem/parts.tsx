'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { ReactNode } from 'react';
import type { ParamValue } from '@uvrex/core';
import { setView, useView } from '@/state/document/view';
import { INK } from '@/ui/theme';

/** Whether a value is not what it is where a step is new. */
export const differs = (value: ParamValue | undefined, from: unknown): boolean =>
  value !== undefined && JSON.stringify(value) !== JSON.stringify(from);

/** A field with a mark before it where it is not as it was made; the mark sets it back. */
export function Marked({
  label,
  on,
  middle,
  back,
  children,
}: {
  label: string;
  on: boolean;
  /** Its label stands in the middle of its height, and the mark with it. */
  middle: boolean;
  back: () => void;
  children: ReactNode;
}) {
  // Plain elements, styled by the list that they stand in: there is one round every field.
  return (
    <div className="field">
      {children}
      {on && (
        <button
          type="button"
          className={middle ? 'mark middle' : 'mark'}
          aria-label={`Set ${label} back`}
          title={`Set ${label} back to what it is at first`}
          onClick={back}
        />
      )}
    </div>
  );
}

/** Holds fields, and says how their marks look. */
export function FieldList({ children }: { children: ReactNode }) {
  return (
    <Box
      sx={{
        '& .field': { position: 'relative' },
        '& .mark': {
          position: 'absolute',
          left: -11,
          top: 4,
          width: 13,
          height: 21,
          p: 0,
          border: 0,
          bgcolor: 'transparent',
          color: 'text.secondary',
          cursor: 'pointer',
          display: 'grid',
          placeItems: 'center',
          fontSize: 12,
          lineHeight: 1,
        },
        '& .mark.middle': { top: 'calc(50% - 10px)' },
        '& .mark::before': { content: '""', width: 4, height: 4, borderRadius: 2, bgcolor: INK.mute },
        '& .mark:hover::before, & .mark:focus-visible::before': {
          content: '"↺"',
          width: 'auto',
          height: 'auto',
          bgcolor: 'transparent',
          color: 'text.primary',
        },
      }}
    >
      {children}
    </Box>
  );
}

/** Fields that fold away under a name; those that are not as they were made show all the same. */
export function Part({ of, name, children }: { of: string; name: string; children: (open: boolean) => ReactNode }) {
  const id = `${of}.${name}`;
  const open = useView(({ openParts }) => openParts.includes(id));
  return (
    <Box role="group" aria-label={name} sx={{ borderTop: `1px solid ${INK.line}`, mt: 0.5, pt: 0.25 }}>
      <ButtonBase
        aria-expanded={open}
        data-part
        onClick={() =>
          setView(({ openParts }) => ({
            openParts: open ? openParts.filter((other) => other !== id) : [...openParts, id],
          }))
        }
        sx={{
          width: '100%',
          justifyContent: 'space-between',
          fontFamily: 'inherit',
          fontSize: 12,
          color: 'text.secondary',
          py: 0.4,
          borderRadius: 1,
          '&:hover': { color: 'text.primary' },
        }}
      >
        {name}
        <Box component="span" aria-hidden sx={{ transform: open ? 'rotate(90deg)' : 'none', pr: 0.5, pl: 0.5 }}>
          ›
        </Box>
      </ButtonBase>
      {children(open)}
    </Box>
  );
}
