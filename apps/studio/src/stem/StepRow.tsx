'use client';

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
  type StepDeclaration,
  stepOf,
} from '@uvrex/core';
import { useShallow } from 'zustand/react/shallow';
import { deleteStep, duplicateStep, renameStep, titleOf, toggleStep } from '@/state/actions/stepActions';
import { ownFrame } from '@/state/actions/valueActions';
import { growthIn, stepIn, useDocument } from '@/state/document/document';
import { withClips } from '@/state/actions/lazyClips';
import { askToKeep } from '@/state/actions/cuttingRequest';
import { useResults } from '@/state/director/results';
import { setView, useView } from '@/state/document/view';
import { HelpTooltip } from '@/ui/HelpTooltip';
import { MoreMenu } from '@/ui/MoreMenu';
import { focusRow, rowBeside } from '@/ui/focusRow';
import { RenameInput } from '@/ui/RenameInput';
import { StepIcon } from '@/ui/StepIcon';
import { FieldsBox } from './FieldsBox';
import { stepHelp } from './pictured';
import { useRowDrag } from './SortableRows';
import { INK, MONO } from '@/ui/theme';

/** Fields are loaded when a step is first opened: a picture can be seen before. */
const ParamFields = dynamic(() => import('./ParamFields').then((module) => module.ParamFields), { ssr: false });
const FixButton = dynamic(() => import('./FixButton').then((module) => module.FixButton), { ssr: false });

interface Props {
  /** Which growth and step, not they themselves, which are others after each change: a row hangs on what it shows. */
  growth: string;
  hue: string;
  step: string;
  notices: Notice[];
}

const grown = (id: string): Growth | undefined => growthIn(useDocument.getState().scene, id);

/** What the head of a step's row shows of it. */
const headOf = (step: Step) => ({
  kind: step.kind,
  on: step.on,
  title: titleOf(step),
  animated: Object.values(step.params).some((value) => isTrack(baseOf(value))),
});

/** One line on what a step does now. */
function summaryOf(growth: Growth, step: Step, declaration: StepDeclaration, clock: Clock, frame: number): string {
  try {
    return declaration.summary(new GrowthValues(growth, clock, frame).of(declaration, step));
  } catch (error) {
    // A line of help must not take the studio down.
    return error instanceof Problem ? 'a formula has no value' : 'nothing to tell yet';
  }
}

interface OfStep {
  growth: string;
  step: string;
  declaration: StepDeclaration;
}

/** What a step does at the playhead; formulas read its neighbours, so it hangs on the whole growth. */
function Summary({ growth: id, step: stepId, declaration }: OfStep) {
  const frame = useView((state) => state.frame);
  return useDocument(({ scene }) => {
    const growth = growthIn(scene, id);
    const step = stepIn(scene, id, stepId);
    return growth && step && summaryOf(growth, step, declaration, scene, ownFrame(growth, frame));
  });
}

/** How long a step took for the frame that is shown, where that is worth telling. */
function Cost({ growth, step }: { growth: string; step: string }) {
  const told = useResults(({ record }) => {
    const took =
      record?.growths.find(({ id }) => id === growth)?.costs.find((cost) => cost.step === step)?.milliseconds ?? 0;
    return took < 1 ? null : took.toFixed(1);
  });
  if (told === null) return null;
  return (
    <Tooltip title="Time this step took for this frame">
      <Box
        component="span"
        sx={{ ml: 'auto', fontFamily: MONO, fontWeight: 400, fontSize: 11, color: 'text.secondary' }}
      >
        {told} ms
      </Box>
    </Tooltip>
  );
}

function Fields({ growth: id, step: stepId, declaration }: OfStep) {
  const growth = useDocument((state) => growthIn(state.scene, id));
  const step = growth?.steps.find((one) => one.id === stepId);
  return (
    growth &&
    step && (
      <ParamFields
        growth={{ ...growth, steps: [...growth.steps, placeOwner(growth)] }}
        step={step}
        declaration={declaration}
      />
    )
  );
}

/** One step on the stem: its bud, what it does now, and opened in place, its fields. */
export const StepRow = memo(function StepRow({ growth, hue, step: id, notices }: Props) {
  const head = useDocument(
    useShallow(({ scene }) => {
      const step = stepIn(scene, growth, id);
      return step ? headOf(step) : null;
    }),
  );
  const open = useView((state) => state.openSteps.includes(id));
  const [naming, setNaming] = useState(false);
  const drag = useRowDrag(id);
  const declaration = head && stepOf(head.kind);
  if (!declaration) return null;

  const { on, title, animated } = head;
  const toggleOpen = (): void =>
    setView(({ openSteps }) => ({
      openSteps: open ? openSteps.filter((other) => other !== id) : [...openSteps, id],
    }));
  return (
    <Box
      ref={drag.ref}
      style={drag.style}
      role="group"
      aria-label={title}
      sx={{
        position: 'relative',
        pl: '46px',
        pr: 1.75,
        py: 0.75,
        zIndex: drag.dragged ? 2 : undefined,
        bgcolor: drag.dragged ? INK.raised : undefined,
        borderRadius: 2,
      }}
    >
      <Tooltip title={on ? 'Switch off (B)' : 'Switch on (B)'}>
        <ButtonBase
          aria-label={`Switch ${title} ${on ? 'off' : 'on'}`}
          aria-pressed={on}
          onClick={() => toggleStep(growth, id)}
          sx={{
            position: 'absolute',
            left: 16,
            top: 9,
            width: 20,
            height: 20,
            borderRadius: '60% 0 60% 60%',
            transform: 'rotate(45deg)',
            bgcolor: on ? hue : INK.panel,
            border: `2px solid ${on ? hue : INK.mute}`,
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
              if (name !== null) renameStep(growth, id, name);
            }}
          />
        ) : (
          <ButtonBase
            {...drag.handle}
            data-row={id}
            aria-expanded={open}
            onClick={toggleOpen}
            onDoubleClick={() => setNaming(true)}
            onFocus={() => setView({ focusStep: id })}
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
                color: on ? 'text.primary' : 'text.secondary',
              }}
            >
              <HelpTooltip help={stepHelp(declaration)} hidden={open}>
                <Box component="span" sx={{ display: 'flex', gap: 1, alignItems: 'center', minWidth: 0 }}>
                  <StepIcon icon={declaration.icon} />
                  {title}
                </Box>
              </HelpTooltip>
              {animated && (
                <Box
                  component="span"
                  aria-label="animated"
                  sx={{ width: 6, height: 6, borderRadius: 3, bgcolor: INK.front, alignSelf: 'center' }}
                />
              )}
              <Cost growth={growth} step={id} />
            </Box>
            <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
              {on ? <Summary growth={growth} step={id} declaration={declaration} /> : 'off'}
            </Box>
          </ButtonBase>
        )}
        <MoreMenu
          of={title}
          items={[
            { label: 'Rename', run: () => setNaming(true) },
            { label: 'Duplicate', run: () => duplicateStep(growth, id) },
            {
              label: 'Copy',
              run: () => {
                const whole = grown(growth)!;
                const step = whole.steps.find((one) => one.id === id)!;
                withClips(({ copyStep }) => copyStep(whole, step));
              },
            },
            { label: 'Keep as a cutting', run: () => askToKeep({ growths: [growth], steps: [id] }) },
            { label: on ? 'Switch off' : 'Switch on', run: () => toggleStep(growth, id) },
            {
              label: 'Delete',
              run: () => {
                const next = rowBeside(grown(growth)!.steps, id) ?? growth;
                deleteStep(growth, id);
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
          {notice.fix && <FixButton growth={growth} step={id} fix={notice.fix} />}
        </Box>
      ))}
      {open && (
        <FieldsBox>
          <Fields growth={growth} step={id} declaration={declaration} />
        </FieldsBox>
      )}
    </Box>
  );
});
