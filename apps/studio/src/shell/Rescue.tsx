'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { formatCount, mendScene, presentScene, type Problem } from '@uvrex/core';
import { unpackScene } from '@uvrex/core/files';
import { save } from '@/state/storage/saveToDisk';
import { keepMended } from '@/library/scenes';
import type { StoredScene } from '@/store/db';
import { Missing } from '../ui/Missing';
import { INK, MONO } from '../ui/theme';
import { sayProblem } from '@/state/toasts';

/** How many of the places are listed. */
const SHOWN = 12;

/** What can be made of a stored scene; null where nothing can. */
function mendedOf(stored: StoredScene): ReturnType<typeof mendScene> {
  try {
    return mendScene(presentScene(unpackScene(stored.scene).document));
  } catch {
    return null;
  }
}

/** A stored scene that does not read: what is wrong and where, a mended copy where one can be made, the raw file in any case. */
export function Rescue({ stored, problem }: { stored: StoredScene; problem: Problem }) {
  const router = useRouter();
  const rescue = useMemo(() => mendedOf(stored), [stored]);
  const name = typeof stored.name === 'string' ? stored.name : 'This scene';
  const openMended = (): void => {
    if (rescue)
      keepMended(stored, rescue.scene)
        .then((id) => router.push(`/studio/${id}`))
        .catch(sayProblem);
  };
  const saveRaw = (): void =>
    save({
      name: 'scene-as-it-is.json',
      blob: new Blob([JSON.stringify(stored.scene, null, 2)], { type: 'application/json' }),
    });
  return (
    <Missing
      what={`“${name}” does not read as it is`}
      advice={
        rescue
          ? `${formatCount(rescue.mended.length, 'place')} in it cannot be as they are. A mended copy can be opened; the scene itself stays as it is.`
          : `${problem.message} It cannot be mended here, but its file can be saved.`
      }
    >
      {rescue && (
        <Box
          component="ul"
          aria-label="What is mended"
          sx={{
            m: 0,
            p: 2,
            pl: 4,
            maxWidth: 720,
            border: `1px solid ${INK.line}`,
            borderRadius: 3,
            fontSize: 13,
            overflowWrap: 'anywhere',
          }}
        >
          {rescue.mended.slice(0, SHOWN).map(({ path, where, reason, done }, i) => (
            <li key={i}>
              {where ?? (
                <Box component="span" sx={{ fontFamily: MONO }}>
                  {path.replaceAll('.', ', ') || 'the scene'}
                </Box>
              )}
              : {reason}; it {done}.
            </li>
          ))}
          {rescue.mended.length > SHOWN && <li>and {rescue.mended.length - SHOWN} more places.</li>}
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1.5 }}>
        {rescue && (
          <Button variant="contained" onClick={openMended}>
            Open a mended copy
          </Button>
        )}
        <Button variant="outlined" color="inherit" onClick={saveRaw}>
          Save the file as it is
        </Button>
      </Box>
    </Missing>
  );
}
