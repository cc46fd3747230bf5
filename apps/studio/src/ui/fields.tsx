'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import MenuItem from '@mui/material/MenuItem';
import Popover from '@mui/material/Popover';
import Select from '@mui/material/Select';
import Switch from '@mui/material/Switch';
import ButtonBase from '@mui/material/ButtonBase';
import { type ReactNode, useState } from 'react';
import { HelpTooltip } from './HelpTooltip';
import { INK } from './theme';

/** Loaded when it is first opened. Until then it takes up as much room, by which a place for it is found. */
const ColorPicker = dynamic(() => import('./ColorPicker').then((module) => module.ColorPicker), {
  ssr: false,
  loading: () => <Box sx={{ width: 200, height: 268 }} />,
});

/** A label with its control beside it, in the columns of the number fields. */
export function Row({ label, help, children }: { label: string; help: ReactNode; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '88px minmax(0, 1fr)',
        columnGap: 1,
        alignItems: 'center',
        minHeight: 29,
      }}
    >
      <HelpTooltip help={help}>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
          {label}
        </Box>
      </HelpTooltip>
      {children}
    </Box>
  );
}

/** One of several. */
export function ChoiceField({
  label,
  help,
  options,
  value,
  onChange,
  onOpen,
}: {
  label: string;
  help: ReactNode;
  /** Each with the address of a picture, where there are some; empty for what has none. */
  options: readonly { value: string; label: string; picture?: string }[];
  onOpen?: () => void;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <Row label={label} help={help}>
      <Select
        variant="standard"
        disableUnderline
        displayEmpty
        value={value}
        onChange={(event) => onChange(event.target.value)}
        onOpen={onOpen}
        renderValue={(chosen) => options.find((option) => option.value === chosen)?.label ?? ''}
        inputProps={{ 'aria-label': label }}
        sx={{
          bgcolor: INK.raised,
          borderRadius: '7px',
          px: 1,
          fontSize: 13,
          minHeight: 25,
          mr: 3.5,
          // What is chosen is never cut off.
          '& .MuiSelect-select': { whiteSpace: 'normal', lineHeight: 1.2 },
        }}
      >
        {options.map((option) => (
          <MenuItem key={option.value} value={option.value} sx={{ fontSize: 13 }}>
            {option.picture !== undefined && (
              <Box
                component="span"
                style={{ backgroundImage: option.picture && `url(${option.picture})` }}
                sx={{ width: 54, height: 36, mr: 1.25, borderRadius: 1, flexShrink: 0, backgroundSize: 'cover' }}
              />
            )}
            {option.label}
          </MenuItem>
        ))}
      </Select>
    </Row>
  );
}

/** On or off. */
export function ToggleField({
  label,
  help,
  value,
  onChange,
}: {
  label: string;
  help: ReactNode;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <Row label={label} help={help}>
      <Box>
        <Switch
          size="small"
          checked={value}
          onChange={(event) => onChange(event.target.checked)}
          slotProps={{ input: { 'aria-label': label } }}
        />
      </Box>
    </Row>
  );
}

/** A colour, behind a swatch. */
export function ColorField({
  label,
  help,
  value,
  onChange,
}: {
  label: string;
  help: ReactNode;
  value: string;
  onChange: (value: string, live: boolean) => void;
}) {
  return (
    <Row label={label} help={help}>
      <Swatch label={label} value={value} onChange={onChange} />
    </Row>
  );
}

/** A swatch that opens a colour picker, the scene's palette in it. */
export function Swatch({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string, live: boolean) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <ButtonBase
        aria-label={`${label}: ${value}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{
          width: 74,
          height: 22,
          borderRadius: '7px',
          bgcolor: value,
          border: `1px solid ${INK.line}`,
          justifySelf: 'start',
        }}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null);
          onChange(value, false);
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { sx: { p: 1.5, display: 'grid', gap: 1.25, border: `1px solid ${INK.line}` } } }}
      >
        <ColorPicker label={label} value={value} onChange={(color) => onChange(color, true)} />
      </Popover>
    </>
  );
}
