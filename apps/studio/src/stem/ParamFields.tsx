'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { Fragment, memo, type ReactNode } from 'react';
import { useShallow } from 'zustand/react/shallow';
import {
  isTrack,
  type OwnerDeclaration,
  type NumberParam,
  type ParamSpec,
  type ParamValue,
  type ProfilePoint,
  type Step,
  stepOf,
  type Stop,
  type Stroke,
  type Anchor,
  baseOf,
  paramFault,
  formulaNames,
  GrowthValues,
  isFormula,
  isVaried,
  kindsGiven,
  type ParamConstant,
  Problem,
  type Variation,
} from '@uvrex/core';
import { makeGuide } from '@/state/actions/guides';
import { makeItem } from '@/state/actions/stepActions';
import {
  ownFrame,
  resetParam,
  setFormula,
  setParam,
  setVariation,
  stopAnimating,
  toggleKey,
} from '@/state/actions/valueActions';
import { endEdit, type Holder, holderIn, useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { ChoiceField, ColorField, ToggleField } from '@/ui/fields';
import { GradientField } from '@/ui/GradientField';
import { attributeNames } from '@/state/document/attributeNames';
import { AnchorsField } from './AnchorsField';
import { FileField } from './FileField';
import { differs, FieldList, Marked, Part } from './parts';
import { PlacesField } from './PlacesField';
import { AttributeField, GrowthField, GuideField } from './referenceFields';
import { TextField } from './TextField';
import { firstVariation, VaryButton, type Varied, VaryField } from './VaryField';
import { Leaf, type LeafState } from '@/ui/Leaf';
import { NumberField } from '@/ui/NumberField';
import { controlHelp } from './pictured';
import { ProfileField } from '@/ui/ProfileField';

interface Props {
  /** The growth with all its owners, or the scene itself. */
  growth: Holder;
  step: Step;
  declaration: OwnerDeclaration;
}

const StepPresets = dynamic(() => import('./StepPresets').then((module) => module.StepPresets), { ssr: false });
const RowsField = dynamic(() => import('./RowsField').then((module) => module.RowsField), { ssr: false });
const StrokesField = dynamic(() => import('./StrokesField').then((module) => module.StrokesField), { ssr: false });

/** A value as constants, or why it has none. */
function valueOf(values: GrowthValues, declaration: OwnerDeclaration, step: Step, name: string): Reading {
  try {
    return { value: values.one(declaration, step, name), trouble: null };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { value: declaration.params[name].default as ParamConstant, trouble: `${error.message} ${error.advice}` };
  }
}

interface Reading {
  value: ParamConstant;
  trouble: string | null;
}

/** All fields of a step, as its declaration lists them. */
export function ParamFields({ growth, step, declaration }: Props) {
  const frame = useView((state) => state.frame);
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  const values = new GrowthValues(growth, { fps, range }, ownFrame(growth, frame));
  const readings = Object.fromEntries(
    Object.keys(declaration.params).map((name) => [name, valueOf(values, declaration, step, name)]),
  );
  const resolved = Object.fromEntries(Object.entries(readings).map(([name, { value }]) => [name, value]));
  // Only steps have any, of all that has fields.
  const { presets, parts = {} } = stepOf(step.kind) ?? {};
  const folded = new Set(Object.values(parts).flat());
  const there = Object.keys(declaration.params).filter((name) => declaration.params[name].shown?.(resolved) ?? true);
  const differing = new Set(there.filter((name) => differs(step.params[name], declaration.params[name].default)));

  const own = ownFrame(growth, frame);
  /** Fields with their groups' names over them, but for that of the part that they all are in. */
  const fields = (names: readonly string[], part?: string): ReactNode => {
    let group: string | undefined;
    return names.map((name) => {
      const spec = declaration.params[name];
      const heading = spec.type === 'number' && spec.group !== group ? spec.group : undefined;
      group = spec.type === 'number' ? spec.group : undefined;
      const raw = step.params[name];
      return (
        <Fragment key={name}>
          {heading && heading !== part && <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.75 }}>{heading}</Box>}
          <Field
            {...{ growth: growth.id, hue: growth.hue, step: step.id, declaration, name, raw }}
            {...readings[name]}
            label={group ? `${group} ${spec.label}` : spec.label}
            leaf={leafState(baseOf(raw), own)}
            differs={differing.has(name)}
          />
        </Fragment>
      );
    });
  };
  return (
    <FieldList>
      {presets && <StepPresets growth={growth.id} step={step.id} hue={growth.hue} presets={presets} />}
      {fields(there.filter((name) => !folded.has(name)))}
      {Object.entries(parts).map(([part, names]) => {
        const own = there.filter((name) => names.includes(name));
        return (
          own.length > 0 && (
            <Part key={part} of={step.kind} name={part}>
              {(open) => fields(open ? own : own.filter((name) => differing.has(name)), part)}
            </Part>
          )
        );
      })}
    </FieldList>
  );
}

interface FieldProps extends Reading {
  /** Which growth, or the scene, and which of its owners: not they themselves, which are others after each change. */
  growth: string;
  hue: string;
  step: string;
  declaration: OwnerDeclaration;
  name: string;
  raw: ParamValue | undefined;
  label: string;
  leaf: LeafState;
  differs: boolean;
}

/** One field with its mark, drawn anew only where its own value is another: a panel has dozens, and one of them is dragged. */
const Field = memo(function Field(props: FieldProps) {
  const { growth, step, declaration, name, label } = props;
  const spec = declaration.params[name];
  return (
    <Marked
      label={label}
      on={props.differs}
      middle={spec.type !== 'number' && spec.type !== 'gradient'}
      back={() => resetParam(growth, step, name)}
    >
      {spec.type === 'number' ? <NumberParamField {...props} spec={spec} /> : <ParamField {...props} spec={spec} />}
    </Marked>
  );
});

/** Tries a formula on the growth as it would then be; why it is refused, or null where it is linked. */
function link(holder: string, owner: string, declaration: OwnerDeclaration, name: string, formula: string | null) {
  const { scene } = useDocument.getState();
  const growth = holderIn(scene, holder);
  const step = growth?.steps.find(({ id }) => id === owner);
  if (formula === null || !growth || !step) return null;
  const fault = paramFault(declaration.params[name], { formula });
  if (fault) return fault;
  const trial: Step = { ...step, params: { ...step.params, [name]: { formula } } };
  const steps = growth.steps.map((entry) => (entry.id === owner ? trial : entry));
  const values = new GrowthValues({ steps }, scene, ownFrame(growth, useView.getState().frame));
  const { trouble } = valueOf(values, declaration, trial, name);
  if (trouble) return `${lowerFirst(trouble)} Known here: ${formulaNames(growth, step).slice(0, 12).join(', ')} …`;
  setFormula(holder, owner, name, formula);
  return null;
}

/** A number with its leaf, its formula and its variation. */
function NumberParamField({
  growth,
  hue,
  step,
  declaration,
  name,
  spec,
  raw,
  value,
  trouble,
  label,
  leaf,
}: FieldProps & { spec: NumberParam }) {
  const base = baseOf(raw);
  const vary = isVaried(raw) ? raw.vary : null;
  const set = (next: number, live: boolean): void => {
    if (isFormula(base)) setFormula(growth, step, name, next);
    else setParam(growth, step, name, next, 'drag');
    if (!live) endEdit();
  };
  return (
    <>
      <NumberField
        spec={spec}
        value={value as number}
        accent={hue}
        help={controlHelp(declaration.kind, name, spec.help)}
        context={spec.group}
        onChange={set}
        formula={isFormula(base) ? base.formula : null}
        onFormula={(formula) => link(growth, step, declaration, name, formula)}
        trouble={trouble}
        vary={
          spec.varies && (
            <VaryButton
              label={label}
              each={variedIn(growth, step)}
              on={vary !== null}
              onClick={() =>
                setVariation(growth, step, name, vary ? null : firstVariation(spec, value as number), spec.default)
              }
            />
          )
        }
        end={
          isFormula(base) ? undefined : (
            <Leaf
              label={label}
              state={leaf}
              onClick={(all) =>
                all ? stopAnimating(growth, step, name, value as number) : toggleKey(growth, step, name, spec)
              }
            />
          )
        }
      />
      {vary && (
        <VaryParam
          {...{ growth, step, spec, vary, hue }}
          onChange={(next, live) => {
            setVariation(growth, step, name, next, spec.default, 'drag');
            if (!live) endEdit();
          }}
        />
      )}
    </>
  );
}

/** What a step's numbers differ between: what the steps before it give. */
function variedIn(holder: string, owner: string): Varied {
  const steps = holderIn(useDocument.getState().scene, holder)?.steps ?? [];
  const at = steps.findIndex(({ id }) => id === owner);
  const kinds = kindsGiven(steps.slice(0, at + 1));
  return kinds.has('paths') ? 'path' : kinds.has('copies') ? 'copy' : kinds.has('points') ? 'point' : 'place';
}

/** By what a number differs, with the attributes that are written before its step. */
function VaryParam({
  growth,
  step,
  spec,
  vary,
  hue,
  onChange,
}: {
  growth: string;
  step: string;
  spec: NumberParam;
  vary: Variation;
  hue: string;
  onChange: (next: Variation, live: boolean) => void;
}) {
  const written = useDocument(useShallow((state) => attributeNames(state.scene.growths, growth, step)));
  return <VaryField spec={spec} vary={vary} accent={hue} written={written} onChange={onChange} />;
}

const lowerFirst = (text: string): string => text[0].toLowerCase() + text.slice(1);

function ParamField({
  growth,
  hue,
  step,
  declaration,
  name,
  spec,
  value,
}: FieldProps & { spec: Exclude<ParamSpec, NumberParam> }) {
  const set = (next: ParamValue, live: boolean): void => {
    setParam(growth, step, name, next, 'drag');
    if (!live) endEdit();
  };
  switch (spec.type) {
    case 'choice':
      return (
        <ChoiceField
          label={spec.label}
          help={controlHelp(declaration.kind, name, spec.help)}
          options={spec.options}
          value={value as string}
          onChange={(next) => set(next, false)}
        />
      );
    case 'toggle':
      return (
        <ToggleField
          label={spec.label}
          help={controlHelp(declaration.kind, name, spec.help)}
          value={value as boolean}
          onChange={(next) => set(next, false)}
        />
      );
    case 'color':
      return <ColorField label={spec.label} help={spec.help} value={value as string} onChange={set} />;
    case 'gradient':
      return <GradientField label={spec.label} help={spec.help} value={value as readonly Stop[]} onChange={set} />;
    case 'profile':
      return <ProfileField spec={spec} value={value as readonly ProfilePoint[]} accent={hue} onChange={set} />;
    case 'growth':
      return (
        <GrowthField
          spec={spec}
          label={spec.label}
          help={spec.help}
          own={growth}
          value={value as string | null}
          onChange={(next) => set(next, false)}
          make={spec.item ? (item) => makeItem(growth, step, name, item) : undefined}
        />
      );
    case 'text':
      if (spec.rows) return <RowsField {...{ growth, step, name, spec }} value={value as string} onChange={set} />;
      return <TextField spec={spec} value={value as string} onChange={set} />;
    case 'file':
      return <FileField spec={spec} value={value as string | null} onChange={(next) => set(next, false)} />;
    case 'guide':
      return (
        <GuideField
          label={spec.label}
          help={spec.help}
          own={growth}
          value={value as string | null}
          onChange={(next) => set(next, false)}
          make={() => makeGuide(growth, step, name)}
        />
      );
    case 'attribute':
      return (
        <AttributeField
          label={spec.label}
          help={spec.help}
          growth={growth}
          step={step}
          none={spec.default === ''}
          value={value as string}
          onChange={(next) => set(next, false)}
        />
      );
    case 'strokes':
      return (
        <StrokesField
          growth={growth}
          step={step}
          name={name}
          strokes={value as readonly Stroke[]}
          onChange={(next) => set(next, false)}
        />
      );
    case 'anchors':
      if (spec.onSkin)
        return (
          <PlacesField
            growth={growth}
            step={step}
            name={name}
            places={value as readonly Anchor[]}
            onChange={(next) => set(next, false)}
          />
        );
      return (
        <AnchorsField
          growth={growth}
          step={step}
          anchors={value as readonly Anchor[]}
          onChange={(next) => set(next, false)}
        />
      );
  }
}

function leafState(raw: ParamValue | undefined, frame: number): LeafState {
  if (!isTrack(raw)) return 'constant';
  return raw.keys.some((key) => key.frame === frame) ? 'key' : 'animated';
}
