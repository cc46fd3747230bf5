'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Tooltip from '@mui/material/Tooltip';
import dynamic from 'next/dynamic';
import { memo, useState } from 'react';
import {
  baseOf,
  type Clock,
  type Growth,
  GrowthValues,
  isTrack,
  type Notice,
  placeOwner,
  Problem,
  type Step,
  type StepCost,
  type StepDeclaration,
  stepOf,
} from '@uvrex/core';
import { deleteStep, duplicateStep, ownFrame, renameStep, titleOf, toggleStep } from '@/state/actions';
import { useDocument } from '@/state/document';
import { copyStep } from '@/state/clips';
import { setView, useView } from '@/state/view';
import { MoreMenu } from '@/ui/MoreMenu';
import { focusRow, rowBeside } from '@/ui/focusRow';
import { RenameInput } from '@/ui/RenameInput';
import { StepIcon } from '@/ui/StepIcon';
import { FieldsBox } from './FieldsBox';
import { INK, MONO } from '@/ui/theme';

/** Fields are loaded when a step is first opened: a picture can be seen before. */
const ParamFields = dynamic(() => import('./ParamFields').then((module) => module.ParamFields), { ssr: false });

interface Props {
  growth: Growth;
  step: Step;
  notices: Notice[];
  cost: StepCost | undefined;
}

/** One line on what a step does now. */
function summaryOf(growth: Growth, step: Step, declaration: StepDeclaration, clock: Clock, frame: number): string {
  try {
    return declaration.summary(new GrowthValues(growth, clock, frame).of(declaration, step));
  } catch (error) {
    // A line of help must not take the studio down.
    return error instanceof Problem ? 'a formula has no value' : 'nothing to tell yet';
  }
}

/** One step on the stem: its bud, what it does now, and opened in place, its fields. */
export const StepRow = memo(function StepRow({ growth, step, notices, cost }: Props) {
  const declaration = stepOf(step.kind);
  const open = useView((state) => state.openSteps.includes(step.id));
  const frame = useView((state) => ownFrame(growth, state.frame));
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  const clock = { fps, range };
  const [naming, setNaming] = useState(false);
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: step.id });
  if (!declaration) return null;

  const title = titleOf(step);
  const animated = Object.values(step.params).some((value) => isTrack(baseOf(value)));
  const summary = step.on ? summaryOf(growth, step, declaration, clock, frame) : 'off';
  const toggleOpen = (): void =>
    setView(({ openSteps }) => ({
      openSteps: open ? openSteps.filter((id) => id !== step.id) : [...openSteps, step.id],
    }));
  return (
    <Box
      ref={setNodeRef}
      role="group"
      aria-label={title}
      sx={{
        position: 'relative',
        pl: '46px',
        pr: 1.75,
        py: 0.75,
        transform: CSS.Translate.toString(transform),
        transition,
        zIndex: isDragging ? 2 : undefined,
        bgcolor: isDragging ? INK.raised : undefined,
        borderRadius: 2,
      }}
    >
      <Tooltip title={step.on ? 'Switch off (B)' : 'Switch on (B)'}>
        <ButtonBase
          aria-label={`Switch ${title} ${step.on ? 'off' : 'on'}`}
          aria-pressed={step.on}
          onClick={() => toggleStep(growth.id, step.id)}
          sx={{
            position: 'absolute',
            left: 16,
            top: 9,
            width: 20,
            height: 20,
            borderRadius: '60% 0 60% 60%',
            transform: 'rotate(45deg)',
            bgcolor: step.on ? growth.hue : INK.panel,
            border: `2px solid ${step.on ? growth.hue : INK.mute}`,
          }}
        />
      </Tooltip>
      <Box sx={{ display: 'flex', alignItems: 'flex-start' }}>
        {naming ? (
          <RenameInput
            value={title}
            label="Name of the step"
            done={(name) => {
              setNaming(false);
              if (name !== null) renameStep(growth.id, step.id, name);
            }}
          />
        ) : (
          <ButtonBase
            {...attributes}
            {...listeners}
            data-row={step.id}
            aria-expanded={open}
            onClick={toggleOpen}
            onDoubleClick={() => setNaming(true)}
            onFocus={() => setView({ focusStep: step.id })}
            sx={{
              flex: 1,
              minWidth: 0,
              display: 'block',
              textAlign: 'left',
              borderRadius: 1,
              cursor: 'grab',
              fontFamily: 'inherit',
            }}
          >
            <Box
              component="span"
              sx={{
                display: 'flex',
                gap: 1,
                alignItems: 'center',
                fontSize: 13.5,
                fontWeight: 650,
                color: step.on ? 'text.primary' : 'text.secondary',
              }}
            >
              <StepIcon icon={declaration.icon} />
              {title}
              {animated && (
                <Box
                  component="span"
                  aria-label="animated"
                  sx={{ width: 6, height: 6, borderRadius: 3, bgcolor: INK.front, alignSelf: 'center' }}
                />
              )}
              {cost && cost.milliseconds >= 1 && (
                <Tooltip title="Time this step took for this frame">
                  <Box
                    component="span"
                    sx={{ ml: 'auto', fontFamily: MONO, fontWeight: 400, fontSize: 11, color: 'text.secondary' }}
                  >
                    {cost.milliseconds.toFixed(1)} ms
                  </Box>
                </Tooltip>
              )}
            </Box>
            <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
              {summary}
            </Box>
          </ButtonBase>
        )}
        <MoreMenu
          of={title}
          items={[
            { label: 'Rename', run: () => setNaming(true) },
            { label: 'Duplicate', run: () => duplicateStep(growth.id, step.id) },
            { label: 'Copy', run: () => copyStep(growth, step) },
            { label: step.on ? 'Switch off' : 'Switch on', run: () => toggleStep(growth.id, step.id) },
            {
              label: 'Delete',
              run: () => {
                const next = rowBeside(growth.steps, step.id) ?? growth.id;
                deleteStep(growth.id, step.id);
                focusRow(next);
              },
            },
          ]}
        />
      </Box>
      {notices.map((notice) => (
        <Box
          key={notice.what}
          role={notice.level === 'note' ? 'note' : 'alert'}
          sx={{
            mt: 0.5,
            fontSize: 12.5,
            color: notice.level === 'error' ? 'error.main' : notice.level === 'note' ? 'text.secondary' : '#f2d06b',
          }}
        >
          {notice.level === 'skipped' && 'Skipped: '}
          {notice.what} {notice.advice}
        </Box>
      ))}
      {open && (
        <FieldsBox>
          <ParamFields
            growth={{ ...growth, steps: [...growth.steps, placeOwner(growth)] }}
            step={step}
            declaration={declaration}
          />
        </FieldsBox>
      )}
    </Box>
  );
});
