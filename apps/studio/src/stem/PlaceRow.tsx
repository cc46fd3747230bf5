'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import dynamic from 'next/dynamic';
import { baseOf, type Growth, GrowthValues, growthPlace, isTrack, placeOwner, Problem } from '@uvrex/core';
import { ownFrame } from '@/state/actions';
import { useDocument } from '@/state/document';
import { setView, useView } from '@/state/view';
import { StepIcon } from '@/ui/StepIcon';
import { FieldsBox } from './FieldsBox';
import { INK } from '@/ui/theme';

const ParamFields = dynamic(() => import('./ParamFields').then((module) => module.ParamFields), { ssr: false });

/** Where a growth stands as a whole, after all its steps. */
export function PlaceRow({ growth }: { growth: Growth }) {
  const name = `place of ${growth.id}`;
  const open = useView((state) => state.openSteps.includes(name));
  const frame = useView((state) => ownFrame(growth, state.frame));
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  const owner = placeOwner(growth);
  const holder = { ...growth, steps: [...growth.steps, owner] };
  const summary = (): string => {
    try {
      return growthPlace.summary(new GrowthValues(holder, { fps, range }, frame).of(growthPlace, owner) as never);
    } catch (error) {
      return error instanceof Problem ? 'a formula has no value' : 'nothing to tell yet';
    }
  };
  const animated = Object.values(growth.place).some((value) => isTrack(baseOf(value)));
  return (
    <Box role="group" aria-label={growthPlace.label} sx={{ px: 1.75, pt: 1.5 }}>
      <ButtonBase
        aria-expanded={open}
        onClick={() =>
          setView(({ openSteps }) => ({
            openSteps: open ? openSteps.filter((entry) => entry !== name) : [...openSteps, name],
          }))
        }
        sx={{ display: 'block', width: '100%', textAlign: 'left', borderRadius: 1, fontFamily: 'inherit' }}
      >
        <Box component="span" sx={{ display: 'flex', gap: 1, alignItems: 'center', fontSize: 13.5, fontWeight: 650 }}>
          <StepIcon icon={growthPlace.icon} />
          {growthPlace.label}
          {animated && (
            <Box
              component="span"
              role="img"
              aria-label="animated"
              sx={{ width: 6, height: 6, borderRadius: 3, bgcolor: INK.front }}
            />
          )}
        </Box>
        <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
          {summary()}
        </Box>
      </ButtonBase>
      {open && (
        <FieldsBox>
          <ParamFields growth={holder} step={owner} declaration={growthPlace} />
        </FieldsBox>
      )}
    </Box>
  );
}
