'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { Fragment, type ReactNode, useState } from 'react';
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
  type ParamConstant,
  Problem,
  READY_ITEMS,
} from '@uvrex/core';
import {
  makeItem,
  ownFrame,
  resetParam,
  setFormula,
  setParam,
  setVariation,
  stopAnimating,
  toggleKey,
} from '@/state/actions';
import { endEdit, type Holder, useDocument } from '@/state/document';
import { useSelectedBefore } from '@/state/selectedBefore';
import { setView, useView } from '@/state/view';
import { ChoiceField, ColorField, ToggleField } from '@/ui/fields';
import { GradientField } from '@/ui/GradientField';
import { attributeLabel, attributeNames } from '@/state/attributeNames';
import { FileField } from './FileField';
import { drawItems, useItemPictures } from './itemPictures';
import { differs, FieldList, Marked, Part } from './parts';
import { PlacesField } from './PlacesField';
import { TextField } from './TextField';
import { firstVariation, VaryButton, VaryField } from './VaryField';
import { Leaf, type LeafState } from '@/ui/Leaf';
import { NumberField } from '@/ui/NumberField';
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
/** The table of anchors is seldom open, and is loaded when it is. */
const AnchorTable = dynamic(() => import('./AnchorTable').then((module) => module.AnchorTable));

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

  const fields = (names: readonly string[]): ReactNode => {
    let group: string | undefined;
    return names.map((name) => {
      const spec = declaration.params[name];
      const heading = spec.type === 'number' && spec.group !== group ? spec.group : undefined;
      group = spec.type === 'number' ? spec.group : undefined;
      return (
        <Fragment key={name}>
          {heading && <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.75 }}>{heading}</Box>}
          <Marked
            label={group ? `${group} ${spec.label}` : spec.label}
            on={differing.has(name)}
            middle={spec.type !== 'number'}
            back={() => resetParam(growth.id, step.id, name)}
          >
            {spec.type === 'number' ? (
              <NumberParamField {...{ growth, step, declaration, name, spec, values }} reading={readings[name]} />
            ) : (
              <ParamField {...{ growth, step, name, spec }} value={readings[name].value} />
            )}
          </Marked>
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
              {(open) => fields(open ? own : own.filter((name) => differing.has(name)))}
            </Part>
          )
        );
      })}
    </FieldList>
  );
}

/** A number with its leaf, its formula and its variation. */
function NumberParamField({
  growth,
  step,
  declaration,
  name,
  spec,
  values,
  reading: { value, trouble },
}: Props & { name: string; spec: NumberParam; values: GrowthValues; reading: Reading }) {
  const raw = step.params[name];
  const base = baseOf(raw);
  const vary = isVaried(raw) ? raw.vary : null;
  const growths = useDocument((state) => state.scene.growths);
  const written = vary ? attributeNames(growths, growth.id, step.id) : [];
  const label = spec.group ? `${spec.group} ${spec.label}` : spec.label;
  /** Tries a formula on the growth as it would then be. */
  const link = (formula: string | null): string | null => {
    if (formula === null) return null;
    const fault = paramFault(spec, { formula });
    if (fault) return fault;
    const trial: Step = { ...step, params: { ...step.params, [name]: { formula } } };
    const steps = growth.steps.map((entry) => (entry.id === step.id ? trial : entry));
    const { trouble: refused } = valueOf(
      new GrowthValues({ steps }, values.clock, values.frame),
      declaration,
      trial,
      name,
    );
    if (refused) return `${lowerFirst(refused)} Known here: ${formulaNames(growth, step).slice(0, 12).join(', ')} …`;
    setFormula(growth.id, step.id, name, formula);
    return null;
  };
  const set = (next: number, live: boolean): void => {
    if (isFormula(base)) setFormula(growth.id, step.id, name, next);
    else setParam(growth.id, step.id, name, next, 'drag');
    if (!live) endEdit();
  };
  return (
    <>
      <NumberField
        spec={spec}
        value={value as number}
        accent={growth.hue}
        context={spec.group}
        onChange={set}
        formula={isFormula(base) ? base.formula : null}
        onFormula={link}
        trouble={trouble}
        vary={
          spec.varies && (
            <VaryButton
              label={label}
              on={vary !== null}
              onClick={() =>
                setVariation(
                  growth.id,
                  step.id,
                  name,
                  vary ? null : firstVariation(spec, value as number),
                  spec.default,
                )
              }
            />
          )
        }
        end={
          isFormula(base) ? undefined : (
            <Leaf
              label={spec.label}
              state={leafState(base, values.frame)}
              onClick={(all) =>
                all
                  ? stopAnimating(growth.id, step.id, name, value as number)
                  : toggleKey(growth.id, step.id, name, spec)
              }
            />
          )
        }
      />
      {vary && (
        <VaryField
          spec={spec}
          vary={vary}
          accent={growth.hue}
          written={written}
          onChange={(next, live) => {
            setVariation(growth.id, step.id, name, next, spec.default, 'drag');
            if (!live) endEdit();
          }}
        />
      )}
    </>
  );
}

const lowerFirst = (text: string): string => text[0].toLowerCase() + text.slice(1);

function ParamField({
  growth,
  step,
  name,
  spec,
  value,
}: Omit<Props, 'declaration'> & { name: string; spec: Exclude<ParamSpec, NumberParam>; value: ParamConstant }) {
  const set = (next: ParamValue, live: boolean): void => {
    setParam(growth.id, step.id, name, next, 'drag');
    if (!live) endEdit();
  };
  switch (spec.type) {
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
          make={spec.item ? (item) => makeItem(growth.id, step.id, name, item) : undefined}
        />
      );
    case 'text':
      if (spec.rows)
        return (
          <RowsField {...{ growth: growth.id, step: step.id, name, spec }} value={value as string} onChange={set} />
        );
      return <TextField spec={spec} value={value as string} onChange={set} />;
    case 'file':
      return <FileField spec={spec} value={value as string | null} onChange={(next) => set(next, false)} />;
    case 'guide':
      return (
        <GuideField
          label={spec.label}
          help={spec.help}
          own={growth.id}
          value={value as string | null}
          onChange={(next) => set(next, false)}
        />
      );
    case 'attribute':
      return (
        <AttributeField
          label={spec.label}
          help={spec.help}
          growth={growth.id}
          step={step.id}
          none={spec.default === ''}
          value={value as string}
          onChange={(next) => set(next, false)}
        />
      );
    case 'strokes':
      return (
        <StrokesField
          growth={growth.id}
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
            growth={growth.id}
            step={step.id}
            name={name}
            places={value as readonly Anchor[]}
            onChange={(next) => set(next, false)}
          />
        );
      return (
        <AnchorsField
          growth={growth.id}
          step={step.id}
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

interface ReferenceProps {
  label: string;
  help: string;
  /** The growth whose step it is: nothing refers to itself. */
  own: string;
  value: string | null;
  onChange: (value: string | null) => void;
}

/** One of several things, or none. */
function ReferenceField({
  none,
  options,
  value,
  onChange,
  ...words
}: Omit<ReferenceProps, 'own'> & {
  none: string;
  options: readonly { value: string; label: string; picture?: string }[];
  onOpen?: () => void;
}) {
  return (
    <ChoiceField
      {...words}
      options={[{ value: '', label: none }, ...options]}
      value={value ?? ''}
      onChange={(next) => onChange(next || null)}
    />
  );
}

/** What stands before the id of something that is to be made. */
const MAKE = 'make:';

/** Another growth; where it is copied, something can be made to be. */
function GrowthField({ own, make, onChange, ...rest }: ReferenceProps & { make?: (item: string) => void }) {
  const growths = useDocument((state) => state.scene.growths);
  const pictures = useItemPictures((state) => state.pictures);
  const before = useSelectedBefore((state) => state.id);
  const options = growths
    .filter(({ id }) => id !== own)
    // What was selected last stands first.
    .sort((a, b) => Number(b.id === before) - Number(a.id === before))
    .map(({ id, name }) => ({ value: id, label: name, picture: pictures.get(id)?.url ?? '' }));
  const ready = make ? READY_ITEMS.map(({ id, label }) => ({ value: `${MAKE}${id}`, label: `Make ${label}` })) : [];
  return (
    <ReferenceField
      {...rest}
      none="None"
      options={[...options, ...ready]}
      onOpen={() => void drawItems().catch(() => undefined)}
      onChange={(next) => (next?.startsWith(MAKE) ? make!(next.slice(MAKE.length)) : onChange(next))}
    />
  );
}

/** A guide of the scene, or the tips of another growth. */
function GuideField({ own, ...rest }: ReferenceProps) {
  const growths = useDocument((state) => state.scene.growths);
  const guides = useDocument((state) => state.scene.guides);
  const options = [
    ...guides.map(({ id, name }) => ({ value: `guide:${id}`, label: name })),
    ...growths.filter(({ id }) => id !== own).map(({ id, name }) => ({ value: `tip:${id}`, label: `Tips of ${name}` })),
  ];
  return <ReferenceField {...rest} none={guides.length > 0 ? 'None' : 'No guides yet'} options={options} />;
}

/** An attribute by its name. */
function AttributeField({
  growth,
  step,
  none,
  value,
  onChange,
  ...words
}: {
  label: string;
  help: string;
  growth: string;
  step: string;
  /** Whether it may go by nothing. */
  none: boolean;
  value: string;
  onChange: (value: string) => void;
}) {
  const growths = useDocument((state) => state.scene.growths);
  const names = [...new Set([...attributeNames(growths, growth, step), ...(value ? [value] : [])])];
  return (
    <ChoiceField
      {...words}
      options={[
        ...(none ? [{ value: '', label: 'Nothing' }] : []),
        ...names.map((name) => ({ value: name, label: attributeLabel(name) })),
      ]}
      value={value}
      onChange={onChange}
    />
  );
}

function AnchorsField({
  growth,
  step,
  anchors,
  onChange,
}: {
  growth: string;
  step: string;
  anchors: readonly Anchor[];
  onChange: (anchors: Anchor[]) => void;
}) {
  const [table, setTable] = useState(false);
  const button = { flexShrink: 0, py: 0.1 };
  return (
    <>
      <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.5 }}>
        {anchors.length} anchors: drag them in the view, double-click the line to add one.
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, py: 0.5 }}>
        <Button
          variant="outlined"
          color="inherit"
          sx={button}
          onClick={() => setView({ tool: 'draw', redraw: { growth, step, part: false }, playing: false })}
        >
          Redraw
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          title="The next stroke replaces the part of the path that it lies along"
          sx={button}
          onClick={() => setView({ tool: 'draw', redraw: { growth, step, part: true }, playing: false })}
        >
          Part
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          aria-expanded={table}
          sx={button}
          onClick={() => setTable((open) => !open)}
        >
          Table
        </Button>
      </Box>
      {table && <AnchorTable anchors={anchors} onChange={onChange} />}
    </>
  );
}
