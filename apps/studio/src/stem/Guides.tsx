'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { newId, type NumberParam, type Scene, type Vec3 } from '@uvrex/core';
import { edit, endEdit, useDocument } from '@/state/document';
import { MoreMenu } from '@/ui/MoreMenu';
import { NumberField } from '@/ui/NumberField';

const AXES = ['X', 'Y', 'Z'] as const;
const axis = (label: string): NumberParam => ({
  type: 'number',
  unit: 'm',
  label,
  help: 'Where the guide stands; drag it in the view too.',
  default: 0,
  min: -1000,
  max: 1000,
  slider: [-5, 5],
});

export const moveGuide = (id: string, position: Vec3, live: boolean): void => {
  edit(
    'Move a guide',
    (draft) => {
      const guide = draft.guides.find((entry) => entry.id === id);
      if (guide) guide.position = [...position];
    },
    `guide:${id}`,
  );
  if (!live) endEdit();
};

function addGuide(): void {
  edit('Add a guide', (draft: Scene) => {
    const taken = new Set(draft.guides.map(({ name }) => name));
    let name = 'Guide';
    for (let i = 2; taken.has(name); i++) name = `Guide ${i}`;
    draft.guides.push({ id: newId(), name, kind: 'point', position: [0, 1, 0], rotation: [0, 0, 0], size: [1, 1, 1] });
  });
}

/** Points that growths refer to: orders of growth are measured from them. */
export function Guides() {
  const guides = useDocument((state) => state.scene.guides);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <h3>Guides</h3>
        <Button color="inherit" sx={{ fontSize: 12, py: 0, color: 'text.secondary' }} onClick={addGuide}>
          + Point
        </Button>
      </Box>
      {guides.map(({ id, name, position }) => (
        <Box key={id} role="group" aria-label={name} sx={{ pb: 0.5 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 13 }}>
            <Box component="span" sx={{ flex: 1 }}>
              {name}
            </Box>
            <MoreMenu
              of={name}
              items={[
                {
                  label: 'Delete',
                  run: () =>
                    edit(
                      'Delete a guide',
                      (draft) => void (draft.guides = draft.guides.filter((entry) => entry.id !== id)),
                    ),
                },
              ]}
            />
          </Box>
          {AXES.map((label, i) => (
            <NumberField
              key={label}
              spec={axis(label)}
              value={position[i]}
              context={name}
              onChange={(next, live) =>
                moveGuide(id, position.map((value, k) => (k === i ? next : value)) as unknown as Vec3, live)
              }
            />
          ))}
        </Box>
      ))}
    </>
  );
}
