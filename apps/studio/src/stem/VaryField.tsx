'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Tooltip from '@mui/material/Tooltip';
import {
  attributeOf,
  DRIVABLE,
  type NumberParam,
  type ProfileParam,
  type Variation,
  type VariationKind,
} from '@uvrex/core';
import { ChoiceField } from '@/ui/fields';
import { NumberField } from '@/ui/NumberField';
import { ProfileField } from '@/ui/ProfileField';
import { INK } from '@/ui/theme';
import { attributeLabel } from '@/state/document/attributeNames';

const WORDS: Record<VariationKind, string> = {
  random: 'At random, path by path',
  noise: 'By noise along the paths',
  index: 'From the first path to the last',
  along: 'Along each path',
  attribute: 'By an attribute',
};

const WAVES: NumberParam = {
  type: 'number',
  unit: 'plain',
  label: 'Changes',
  help: 'How often the noise changes along a whole path; 0 makes it differ from path to path only.',
  default: 3,
  min: 0,
  max: 1000,
  slider: [0, 20],
};

const SHAPE: ProfileParam = {
  type: 'profile',
  label: 'Shape',
  help: 'Share of the amount, from the first path to the last, from base to tip, or from one value of the attribute to the other.',
  min: -1,
  max: 1,
  default: [],
};

/** The fields for the two values of an attribute between which a number goes from one end of the shape to the other. */
const spanField = (label: string, unit: NumberParam['unit'], value: number): NumberParam => ({
  type: 'number',
  unit,
  label,
  help: `Value of the attribute that the ${label === 'From' ? 'beginning' : 'end'} of the shape stands for.`,
  default: value,
  min: -1e6,
  max: 1e6,
  slider: [0, Math.max(1, 2 * value)],
});

/** What a parameter begins to differ by. */
export const firstVariation = (spec: NumberParam, value: number): Variation => ({
  by: 'random',
  amount: value !== 0 ? Math.abs(value) / 2 : ((spec.slider?.[1] ?? spec.max) - (spec.slider?.[0] ?? spec.min)) / 10,
  waves: 3,
  shape: [
    { at: 0, value: 0, shape: 'straight' },
    { at: 1, value: 1 },
  ],
});

/** What a variation needs to go by an attribute. */
const goingBy = (name: string): Pick<Variation, 'attribute' | 'span'> => ({
  attribute: name,
  span: [...(attributeOf(name)?.span ?? [0, 1])],
});

/** The button beside a number that can differ from path to path. */
export function VaryButton({
  label,
  each,
  on,
  onClick,
}: {
  label: string;
  /** What it differs between. */
  each: Varied;
  on: boolean;
  onClick: () => void;
}) {
  const help = on ? `Varies: make it alike for all ${PLURAL[each]}` : `Vary it from ${each} to ${each}`;
  return (
    <Tooltip title={help}>
      <ButtonBase
        aria-label={`${label}: ${help.toLowerCase()}`}
        aria-pressed={on}
        onClick={onClick}
        sx={{ width: 16, height: 20, borderRadius: 1 }}
      >
        <svg width="12" height="14" viewBox="0 0 12 14" aria-hidden>
          <path
            d="M2 13V9M6 13V2M10 13V6"
            stroke={on ? INK.sprout : INK.mute}
            strokeWidth="1.7"
            strokeLinecap="round"
            fill="none"
          />
        </svg>
      </ButtonBase>
    </Tooltip>
  );
}

/** What a number can differ between. */
export type Varied = keyof typeof PLURAL;
const PLURAL = { path: 'paths', copy: 'copies', point: 'points', place: 'places' } as const;

interface Props {
  spec: NumberParam;
  vary: Variation;
  accent: string;
  /** Attributes that earlier steps leave behind. */
  written: readonly string[];
  onChange: (vary: Variation, live: boolean) => void;
}

/** How a number differs: by what, by how much, and in which shape. */
export function VaryField({ spec, vary, accent, written, onChange }: Props) {
  const reach = Math.max(Math.abs(spec.slider?.[0] ?? spec.min), Math.abs(spec.slider?.[1] ?? spec.max));
  const amount: NumberParam = {
    ...spec,
    label: 'By',
    help: 'Largest difference, up or down; negative turns it round.',
    min: -Math.max(Math.abs(spec.min), Math.abs(spec.max)),
    max: Math.max(Math.abs(spec.min), Math.abs(spec.max)),
    slider: [-reach, reach],
    whole: false,
  };
  const kinds = (Object.keys(WORDS) as VariationKind[]).filter((by) => by !== 'along' || spec.varies === 'along');
  const known = Object.keys(DRIVABLE).filter((name) => spec.varies === 'along' || DRIVABLE[name].domain === 'path');
  // What has been written for the purpose comes first.
  const names = [...new Set([...(spec.varies === 'along' ? written : []), ...known])];
  const { attribute = names[0], span = [0, 1] } = vary;
  return (
    <Box
      role="group"
      aria-label={`${spec.label}, how it varies`}
      sx={{ borderLeft: `2px solid ${accent}66`, pl: 0.75, ml: 0.25, my: 0.5 }}
    >
      <ChoiceField
        label="Varies"
        help="What the difference hangs on."
        options={kinds.map((by) => ({ value: by, label: WORDS[by] }))}
        value={vary.by}
        onChange={(by) =>
          onChange({ ...vary, by: by as VariationKind, ...(by === 'attribute' ? goingBy(names[0]) : {}) }, false)
        }
      />
      <NumberField
        spec={amount}
        value={vary.amount}
        accent={accent}
        context={spec.label}
        onChange={(next, live) => onChange({ ...vary, amount: next }, live)}
      />
      {vary.by === 'noise' && (
        <NumberField
          spec={WAVES}
          value={vary.waves}
          accent={accent}
          context={spec.label}
          onChange={(waves, live) => onChange({ ...vary, waves }, live)}
        />
      )}
      {vary.by === 'attribute' && (
        <>
          <ChoiceField
            label="Attribute"
            help="What the difference goes by, at each place."
            options={[...new Set([...names, attribute])].map((name) => ({
              value: name,
              label: attributeLabel(name),
            }))}
            value={attribute}
            onChange={(name) => onChange({ ...vary, ...goingBy(name) }, false)}
          />
          {(['From', 'To'] as const).map((label, end) => (
            <NumberField
              key={label}
              spec={spanField(label, attributeOf(attribute)?.unit ?? 'plain', attributeOf(attribute)?.span[end] ?? end)}
              value={span[end]}
              accent={accent}
              context={spec.label}
              onChange={(next, live) =>
                onChange({ ...vary, attribute, span: end === 0 ? [next, span[1]] : [span[0], next] }, live)
              }
            />
          ))}
        </>
      )}
      {(vary.by === 'index' || vary.by === 'along' || vary.by === 'attribute') && (
        <ProfileField
          spec={SHAPE}
          value={vary.shape}
          accent={accent}
          onChange={(shape, live) => onChange({ ...vary, shape }, live)}
        />
      )}
    </Box>
  );
}
