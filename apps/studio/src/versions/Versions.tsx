'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useLiveQuery } from 'dexie-react-hooks';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { checkScene } from '@uvrex/core';
import { freeName, keep } from '@/library/scenes';
import type { StoredVersion } from '@/store/db';
import { useDocument } from '@/state/document/document';
import { deleteVersion, goBackTo, keepVersion, renameVersion, versionsOf } from '@/state/storage/versions';
import { setView } from '@/state/document/view';
import { PictureCard } from '@/ui/PictureCard';
import { INK } from '@/ui/theme';
import { announceDeleted } from '@/ui/deleted';
import { DeletedButton } from '@/ui/DeletedButton';
import { sayProblem } from '@/state/toasts';
import { Compare } from './Compare';

const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const close = (): void => setView({ sheet: null });

/** States of the scene that were kept: gone back to, opened apart, compared two by two. */
export function Versions() {
  const id = useDocument((state) => state.id);
  const versions = useLiveQuery(() => (id === null ? [] : versionsOf(id)), [id]);
  const [compared, setCompared] = useState<string | null>(null);
  return (
    <Dialog open onClose={close} maxWidth="md" fullWidth>
      <DialogTitle sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1 }}>{compared === null ? 'Versions' : 'Compare two versions'}</Box>
        {compared !== null ? (
          <Button color="inherit" onClick={() => setCompared(null)}>
            Back to all versions
          </Button>
        ) : (
          <Button variant="contained" onClick={() => void keepVersion().catch(sayProblem)}>
            Keep this state
          </Button>
        )}
        <DeletedButton />
        <Button color="inherit" onClick={close}>
          Close
        </Button>
      </DialogTitle>
      <DialogContent sx={{ minHeight: 320 }}>
        {compared !== null ? (
          <Compare versions={versions ?? []} first={compared} />
        ) : versions?.length === 0 ? (
          <Box sx={{ color: 'text.secondary', maxWidth: 460, lineHeight: 1.55 }}>
            None yet. A version keeps the whole scene as it is now: go on trying things, come back to it at any time, or
            play the two beside each other.
          </Box>
        ) : (
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(230px, 1fr))', gap: 1.5 }}>
            {versions?.map((version) => (
              <VersionCard key={version.id} version={version} compare={() => setCompared(version.id)} />
            ))}
          </Box>
        )}
      </DialogContent>
    </Dialog>
  );
}

function VersionCard({ version, compare }: { version: StoredVersion; compare: () => void }) {
  const router = useRouter();
  const { name } = version;
  const goBack = (): void => {
    try {
      goBackTo(version);
      close();
    } catch (error) {
      sayProblem(error);
    }
  };
  const apart = async (): Promise<void> => {
    const scene = checkScene(version.scene);
    const made = await keep({ ...scene, name: await freeName(`${scene.name}, ${name}`) }, version.picture);
    router.push(`/studio/${made}`);
  };
  return (
    <PictureCard
      name={name}
      about={`${WHEN.format(version.made)}, ${countOf(version)}`}
      picture={version.picture}
      rename={{ label: 'Name of the version', to: (next) => renameVersion(version, next) }}
      items={[
        { label: 'Open as a scene of its own', run: () => void apart().catch(sayProblem) },
        { label: 'Delete', run: () => void announceDeleted(name, deleteVersion(version)) },
      ]}
    >
      <Box sx={{ display: 'flex', gap: 0.75, pt: 1 }}>
        <Button variant="outlined" color="inherit" onClick={goBack} sx={{ flex: 1, borderColor: INK.line }}>
          Go back to it
        </Button>
        <Button variant="outlined" color="inherit" onClick={compare} sx={{ borderColor: INK.line }}>
          Compare
        </Button>
      </Box>
    </PictureCard>
  );
}

const countOf = ({ scene }: StoredVersion): string =>
  scene.growths.length === 1 ? '1 growth' : `${scene.growths.length} growths`;
