'use client';

import Redo from '@mui/icons-material/Redo';
import Undo from '@mui/icons-material/Undo';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Link from 'next/link';
import { useState } from 'react';
import { keepScene, useSaving } from '@/state/storage/autosave';
import { runCommand } from '@/state/actions/commands';
import { edit, useDocument } from '@/state/document/document';
import { setView } from '@/state/document/view';
import { RenameInput } from '../ui/RenameInput';
import { INK, wordmark } from '../ui/theme';

const SAVING = {
  saved: 'Saved on this device',
  saving: 'Saving …',
  failed: 'Not saved.',
  gone: 'Not on this device any more.',
  taken: 'Open in another tab.',
} as const;

/** Where one is, whether it is kept, and the way out: parts of their own, since some change with every edit. */
export function Header() {
  return (
    <Box
      component="header"
      sx={{
        gridColumn: '1 / 3',
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        px: 1.75,
        borderBottom: `1px solid ${INK.line}`,
      }}
    >
      <Box component={Link} href="/" sx={wordmark}>
        uvrex
      </Box>
      <Box
        component={Link}
        href="/"
        sx={{ color: 'text.secondary', textDecoration: 'none', '&:hover': { color: 'text.primary' } }}
      >
        Library /
      </Box>
      <Naming />
      <Kept />
      <Box sx={{ ml: 'auto', display: 'flex', gap: 1, alignItems: 'center', flexShrink: 0 }}>
        <Ways />
        <Button variant="outlined" color="inherit" sx={{ borderColor: INK.line }} onClick={() => runCommand('lessons')}>
          Lessons
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          sx={{ borderColor: INK.line }}
          onClick={() => setView({ palette: 'commands' })}
        >
          Commands
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          sx={{ borderColor: INK.line }}
          onClick={() => runCommand('versions')}
        >
          Versions
        </Button>
        <Button variant="outlined" color="inherit" sx={{ borderColor: INK.line }} onClick={() => runCommand('checks')}>
          Checks
        </Button>
        <Button variant="contained" onClick={() => runCommand('export')}>
          Export
        </Button>
      </Box>
    </Box>
  );
}

/** The scene's name, which a click changes. */
function Naming() {
  const name = useDocument((state) => state.scene.name);
  const [naming, setNaming] = useState(false);
  return (
    // The page is about the scene.
    <Box component="h1" sx={{ m: 0, minWidth: 0, font: 'inherit' }}>
      {naming ? (
        <Box sx={{ width: 240, display: 'flex' }}>
          <RenameInput
            value={name}
            label="Name of the scene"
            done={(next) => {
              setNaming(false);
              if (next) edit('Rename scene', (scene) => void (scene.name = next));
            }}
          />
        </Box>
      ) : (
        <Tooltip title="Rename">
          <ButtonBase
            onClick={() => setNaming(true)}
            sx={{
              display: 'block',
              minWidth: 60,
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
              fontWeight: 650,
              fontSize: 14,
              fontFamily: 'inherit',
              borderRadius: 1,
              px: 0.5,
            }}
          >
            {name}
          </ButtonBase>
        </Tooltip>
      )}
    </Box>
  );
}

/** Whether the scene is kept. */
function Kept() {
  const { state: saving, advice } = useSaving();
  const trouble = saving === 'failed' || saving === 'gone';
  return (
    <>
      <Box
        role="status"
        sx={{
          color: trouble ? 'error.main' : 'text.secondary',
          fontSize: 12.5,
          whiteSpace: trouble ? 'normal' : 'nowrap',
        }}
      >
        {SAVING[saving]} {advice}
      </Box>
      {saving === 'gone' && (
        <Button variant="outlined" color="inherit" onClick={keepScene} sx={{ py: 0.1, borderColor: INK.line }}>
          Keep it
        </Button>
      )}
    </>
  );
}

/** Back and forth through what has been done. */
function Ways() {
  const past = useDocument((state) => state.history.past.at(-1)?.label);
  const future = useDocument((state) => state.history.future[0]?.label);
  return (
    <>
      <Tooltip title={past ? `Undo: ${past.toLowerCase()}` : 'Nothing to undo'}>
        <span>
          <IconButton aria-label="Undo" disabled={!past} onClick={() => runCommand('undo')}>
            <Undo fontSize="small" />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip title={future ? `Redo: ${future.toLowerCase()}` : 'Nothing to redo'}>
        <span>
          <IconButton aria-label="Redo" disabled={!future} onClick={() => runCommand('redo')}>
            <Redo fontSize="small" />
          </IconButton>
        </span>
      </Tooltip>
    </>
  );
}
