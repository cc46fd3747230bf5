'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { type Guide, type NumberParam, type Vec3 } from '@uvrex/core';
import { endEdit, useDocument } from '@/state/document';
import { addGuide, changeGuide, deleteGuide, GUIDE_KINDS } from '@/state/guides';
import { ChoiceField } from '@/ui/fields';
import { MoreMenu } from '@/ui/MoreMenu';
import { NumberField } from '@/ui/NumberField';
import { RenameInput } from '@/ui/RenameInput';

const AXES = ['X', 'Y', 'Z'] as const;

const number = (more: Pick<NumberParam, 'label' | 'help' | 'unit' | 'min' | 'max' | 'slider'>): NumberParam => ({
  type: 'number',
  default: 0,
  ...more,
});
const place = AXES.map((label) =>
  number({
    unit: 'm',
    label,
    help: 'Where the guide stands; drag it in the view too.',
    min: -1000,
    max: 1000,
    slider: [-5, 5],
  }),
);
const turn = AXES.map((axis) =>
  number({
    unit: 'deg',
    label: `Turned ${axis}`,
    help: 'Turns the shape. A plane weighs what lies behind its upper side; drag its arrow in the view too.',
    min: -36000,
    max: 36000,
    slider: [-180, 180],
  }),
);
const length = (label: string, help: string): NumberParam =>
  number({ unit: 'm', label, help, min: 0.0001, max: 1000, slider: [0.05, 5] });
const sizes = ['Width', 'Height', 'Depth'].map((label) =>
  length(label, 'Of the box; drag its corner in the view too.'),
);
const radius = length('Radius', 'Of the ball; drag its rim in the view too.');

/** Points and shapes that growths refer to: orders and delays are measured from them, falloffs weigh by them. */
export function Guides() {
  const guides = useDocument((state) => state.scene.guides);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <h3>Guides</h3>
        <Button color="inherit" sx={{ fontSize: 12, py: 0, color: 'text.secondary' }} onClick={() => addGuide('point')}>
          + Guide
        </Button>
      </Box>
      {guides.map((guide) => (
        <GuideFields key={guide.id} guide={guide} />
      ))}
    </>
  );
}

function GuideFields({ guide }: { guide: Guide }) {
  const { id, name, kind, size } = guide;
  const [renaming, setRenaming] = useState(false);
  const vector = (field: 'position' | 'rotation' | 'size', specs: readonly NumberParam[]) =>
    specs.map((spec, i) => (
      <NumberField
        key={spec.label}
        spec={spec}
        value={guide[field][i]}
        context={name}
        onChange={(next, live) => {
          changeGuide(id, { [field]: guide[field].map((value, k) => (k === i ? next : value)) as unknown as Vec3 });
          if (!live) endEdit();
        }}
      />
    ));
  return (
    <Box role="group" aria-label={name} sx={{ pb: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 13 }}>
        {renaming ? (
          <RenameInput
            value={name}
            label="Name of the guide"
            done={(next) => {
              if (next) changeGuide(id, { name: next });
              endEdit();
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
      <ChoiceField
        label="Kind"
        help="A point, or a shape that falloffs weigh by."
        options={GUIDE_KINDS.map(({ kind: value, label }) => ({ value, label }))}
        value={kind}
        onChange={(next) => {
          changeGuide(id, { kind: next as Guide['kind'] });
          endEdit();
        }}
      />
      {vector('position', place)}
      {(kind === 'plane' || kind === 'box') && vector('rotation', turn)}
      {kind === 'box' && vector('size', sizes)}
      {kind === 'ball' && (
        <NumberField
          spec={radius}
          value={size[0] / 2}
          context={name}
          onChange={(next, live) => {
            changeGuide(id, { size: [2 * next, 2 * next, 2 * next] });
            if (!live) endEdit();
          }}
        />
      )}
    </Box>
  );
}
