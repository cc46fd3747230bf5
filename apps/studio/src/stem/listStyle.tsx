import Visibility from '@mui/icons-material/Visibility';
import VisibilityOff from '@mui/icons-material/VisibilityOff';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { INK } from '@/ui/theme';

/** How a row of the list looks; `on` where it is chosen. */
export const rowStyle = (hue: string, on: boolean) =>
  ({
    display: 'flex',
    alignItems: 'center',
    justifyContent: 'flex-start',
    gap: 1.25,
    minHeight: 30,
    pl: 1.75,
    pr: 0.75,
    fontSize: 13.5,
    fontFamily: 'inherit',
    textAlign: 'left',
    fontWeight: on ? 650 : 450,
    bgcolor: on ? INK.raised : 'transparent',
    boxShadow: on ? `inset 3px 0 ${hue}` : 'none',
  }) as const;

export const CUT = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;

export const Dot = ({ hue, hollow = false }: { hue: string; hollow?: boolean }) => (
  <Box
    component="span"
    sx={{
      width: 9,
      height: 9,
      borderRadius: 5,
      flexShrink: 0,
      border: `2px solid ${hue}`,
      bgcolor: hollow ? 'transparent' : hue,
    }}
  />
);

/** Shows a growth or a group, or hides it. */
export const Eye = ({ name, visible, toggle }: { name: string; visible: boolean; toggle: () => void }) => (
  <IconButton
    aria-label={visible ? `Hide ${name}` : `Show ${name}`}
    onClick={toggle}
    sx={{ p: 0.25, color: 'text.secondary' }}
  >
    {visible ? <Visibility sx={{ fontSize: 16 }} /> : <VisibilityOff sx={{ fontSize: 16 }} />}
  </IconButton>
);
