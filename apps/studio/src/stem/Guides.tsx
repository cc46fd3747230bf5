'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { declarationOf, type Step } from '@uvrex/core';
import type { Holder } from '@/state/document/document';
import { addGuide, deleteGuide, renameGuide } from '@/state/actions/guides';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { ParamFields } from './ParamFields';

/** Points and shapes that growths refer to: orders and delays are measured from them, falloffs weigh by them. */
export function Guides({ holder }: { holder: Holder }) {
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <h2>Guides</h2>
        <Button color="inherit" sx={{ fontSize: 12, py: 0, color: 'text.secondary' }} onClick={() => addGuide('point')}>
          + Guide
        </Button>
      </Box>
      {holder.steps
        .filter(({ kind }) => kind === 'guide')
        .map((guide) => (
          <GuideFields key={guide.id} holder={holder} guide={guide} />
        ))}
    </>
  );
}

function GuideFields({ holder, guide }: { holder: Holder; guide: Step }) {
  const { id, name } = guide;
  const [renaming, setRenaming] = useState(false);
  return (
    <Box role="group" aria-label={name} sx={{ pb: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 13 }}>
        {renaming ? (
          <RenameInput
            value={name}
            label="Name of the guide"
            done={(next) => {
              if (next) renameGuide(id, next);
              setRenaming(false);
            }}
          />
        ) : (
          <Box component="span" sx={{ flex: 1 }}>
            {name}
          </Box>
        )}
        <MoreMenu
          of={name}
          items={[
            { label: 'Rename', run: () => setRenaming(true) },
            { label: 'Delete', run: () => deleteGuide(id) },
          ]}
        />
      </Box>
      <ParamFields growth={holder} step={guide} declaration={declarationOf('guide')!} />
    </Box>
  );
}
