'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Fragment } from 'react';
import {
  type Growth,
  isTrack,
  type NumberParam,
  type ParamSpec,
  type ParamValue,
  type ProfilePoint,
  resolveParam,
  resolveParams,
  type Step,
  type StepDeclaration,
  type Stop,
  type Vec3,
} from '@uvrex/core';
import { ownFrame, setParam, toggleKey } from '@/state/actions';
import { endEdit, useDocument } from '@/state/document';
import { setView, useView } from '@/state/view';
import { ChoiceField, ColorField, ToggleField } from '@/ui/fields';
import { GradientField } from '@/ui/GradientField';
import { Leaf, type LeafState } from '@/ui/Leaf';
import { NumberField } from '@/ui/NumberField';
import { ProfileField } from '@/ui/ProfileField';

interface Props {
  growth: Growth;
  step: Step;
  declaration: StepDeclaration;
}

/** All fields of a step, as its declaration lists them. */
export function ParamFields({ growth, step, declaration }: Props) {
  const frame = useView((state) => state.frame);
  const resolved = resolveParams(declaration, step, ownFrame(growth, frame));
  let group: string | undefined;
  return (
    <>
      {Object.entries(declaration.params).map(([name, spec]) => {
        if (spec.shown && !spec.shown(resolved)) return null;
        const heading = spec.type === 'number' && spec.group !== group ? spec.group : undefined;
        group = spec.type === 'number' ? spec.group : undefined;
        return (
          <Fragment key={name}>
            {heading && <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.75 }}>{heading}</Box>}
            <ParamField growth={growth} step={step} name={name} spec={spec} />
          </Fragment>
        );
      })}
    </>
  );
}

function ParamField({ growth, step, name, spec }: Omit<Props, 'declaration'> & { name: string; spec: ParamSpec }) {
  const frame = useView((state) => state.frame);
  const own = ownFrame(growth, frame);
  const raw = step.params[name];
  const value = resolveParam(spec, raw, own);
  const set = (next: ParamValue, live: boolean): void => {
    setParam(growth.id, step.id, name, next, 'drag');
    if (!live) endEdit();
  };
  switch (spec.type) {
    case 'number':
      return (
        <NumberField
          spec={spec}
          value={value as number}
          accent={growth.hue}
          context={spec.group}
          onChange={set}
          end={
            <Leaf
              label={spec.label}
              state={leafState(raw, own)}
              onClick={() => toggleKey(growth.id, step.id, name, spec as NumberParam)}
            />
          }
        />
      );
    case 'choice':
      return (
        <ChoiceField
          label={spec.label}
          help={spec.help}
          options={spec.options}
          value={value as string}
          onChange={(next) => set(next, false)}
        />
      );
    case 'toggle':
      return (
        <ToggleField
          label={spec.label}
          help={spec.help}
          value={value as boolean}
          onChange={(next) => set(next, false)}
        />
      );
    case 'color':
      return <ColorField label={spec.label} help={spec.help} value={value as string} onChange={set} />;
    case 'gradient':
      return <GradientField label={spec.label} help={spec.help} value={value as readonly Stop[]} onChange={set} />;
    case 'profile':
      return <ProfileField spec={spec} value={value as readonly ProfilePoint[]} accent={growth.hue} onChange={set} />;
    case 'growth':
      return (
        <GrowthField
          label={spec.label}
          help={spec.help}
          own={growth.id}
          value={value as string | null}
          onChange={(next) => set(next, false)}
        />
      );
    case 'anchors':
      return <AnchorsField growth={growth.id} step={step.id} count={(value as readonly Vec3[]).length} />;
  }
}

function leafState(raw: ParamValue | undefined, frame: number): LeafState {
  if (!isTrack(raw)) return 'constant';
  return raw.keys.some((key) => key.frame === frame) ? 'key' : 'animated';
}

function GrowthField({
  label,
  help,
  own,
  value,
  onChange,
}: {
  label: string;
  help: string;
  own: string;
  value: string | null;
  onChange: (value: string | null) => void;
}) {
  const growths = useDocument((state) => state.scene.growths);
  const options = [
    { value: '', label: 'None' },
    ...growths.filter(({ id }) => id !== own).map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <ChoiceField
      label={label}
      help={help}
      options={options}
      value={value ?? ''}
      onChange={(next) => onChange(next || null)}
    />
  );
}

function AnchorsField({ growth, step, count }: { growth: string; step: string; count: number }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 12, color: 'text.secondary', py: 0.5 }}>
      <span>{count} anchors: drag them in the view, double-click the line to add one.</span>
      <Button
        variant="outlined"
        color="inherit"
        sx={{ flexShrink: 0, py: 0.1 }}
        onClick={() => setView({ tool: 'draw', redraw: { growth, step }, playing: false })}
      >
        Redraw
      </Button>
    </Box>
  );
}
