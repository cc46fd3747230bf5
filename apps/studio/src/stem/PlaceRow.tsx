'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import dynamic from 'next/dynamic';
import { memo } from 'react';
import {
  baseOf,
  type Clock,
  type Growth,
  GrowthValues,
  growthPlace,
  isTrack,
  placeOwner,
  Problem,
  type Step,
} from '@uvrex/core';
import { ownFrame } from '@/state/actions/valueActions';
import { growthIn, type Holder, useDocument } from '@/state/document/document';
import { setView, useView } from '@/state/document/view';
import { StepIcon } from '@/ui/StepIcon';
import { FieldsBox } from './FieldsBox';
import { INK } from '@/ui/theme';

const ParamFields = dynamic(() => import('./ParamFields').then((module) => module.ParamFields), { ssr: false });

/** A growth with its place among its owners of numbers. */
function withPlace(growth: Growth): { holder: Holder; owner: Step } {
  const owner = placeOwner(growth);
  return { holder: { ...growth, steps: [...growth.steps, owner] }, owner };
}

/** One line on where a growth stands now. */
function summaryOf(growth: Growth, clock: Clock, frame: number): string {
  const { holder, owner } = withPlace(growth);
  try {
    return growthPlace.summary(new GrowthValues(holder, clock, frame).of(growthPlace, owner) as never);
  } catch (error) {
    return error instanceof Problem ? 'a formula has no value' : 'nothing to tell yet';
  }
}

function Fields({ growth: id }: { growth: string }) {
  const growth = useDocument(({ scene }) => growthIn(scene, id));
  if (!growth) return null;
  const { holder, owner } = withPlace(growth);
  return <ParamFields growth={holder} step={owner} declaration={growthPlace} />;
}

/** Where a growth stands as a whole, after all its steps. */
export const PlaceRow = memo(function PlaceRow({ growth: id }: { growth: string }) {
  const name = `place of ${id}`;
  const open = useView((state) => state.openSteps.includes(name));
  const frame = useView((state) => state.frame);
  const summary = useDocument(({ scene }) => {
    const growth = growthIn(scene, id);
    return growth && summaryOf(growth, scene, ownFrame(growth, frame));
  });
  const animated = useDocument(({ scene }) =>
    Object.values(growthIn(scene, id)?.place ?? {}).some((value) => isTrack(baseOf(value))),
  );
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
          {summary}
        </Box>
      </ButtonBase>
      {open && (
        <FieldsBox>
          <Fields growth={id} />
        </FieldsBox>
      )}
    </Box>
  );
});
