'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Visibility from '@mui/icons-material/Visibility';
import VisibilityOff from '@mui/icons-material/VisibilityOff';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import { memo, useState } from 'react';
import { type Growth, HUES } from '@uvrex/core';
import { changeGrowth, deleteGrowth, duplicateGrowth, moveGrowth } from '@/state/actions';
import { keepAsCutting, withClips } from '@/state/clipsLater';
import { useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { useSizes } from '@/state/sizes';
import { SCENE_ENTRY, setView, useView } from '@/state/view';
import { PodShape } from '@/timeline/PodShape';
import { Divider } from '@/ui/Divider';
import { MoreMenu } from '@/ui/MoreMenu';
import { focusRow, rowBeside } from '@/ui/focusRow';
import { RenameInput } from '@/ui/RenameInput';
import { SortableRows } from './SortableRows';
import { INK, ONE_CELL } from '@/ui/theme';

/** The scene and its growths; each with a small pod of how it grows over the range. */
export function GrowthList() {
  const growths = useDocument((state) => state.scene.growths);
  const selected = useView((state) => state.growth);
  const height = useSizes((sizes) => sizes.list);
  return (
    <Box
      sx={{ ...ONE_CELL, position: 'relative', flexShrink: 0, maxHeight: '38%', minHeight: 0 }}
      style={height === null ? undefined : { height, maxHeight: '70%' }}
    >
      <Box
        component="section"
        aria-label="Growths"
        sx={{ borderBottom: `1px solid ${INK.line}`, pb: 1, overflowY: 'auto', minHeight: 0 }}
      >
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', pl: 1.75, pr: 1, pt: 0.75 }}>
          <Box sx={{ fontSize: 12, color: 'text.secondary' }}>Growths</Box>
          <Button
            color="inherit"
            sx={{ fontSize: 12, py: 0.1, color: 'text.secondary' }}
            onClick={() => setView({ palette: 'begin' })}
          >
            + New
          </Button>
        </Box>
        <ButtonBase
          aria-pressed={selected === SCENE_ENTRY}
          onClick={() => setView({ growth: SCENE_ENTRY, keys: [] })}
          sx={{ ...rowStyle('#7fb4ff', selected === SCENE_ENTRY), width: '100%' }}
        >
          <Dot hue="#7fb4ff" />
          Scene, light and camera
        </ButtonBase>
        <SortableRows rows={growths} onMove={moveGrowth}>
          {growths.map((growth) => (
            <GrowthRow key={growth.id} growth={growth} selected={selected === growth.id} />
          ))}
        </SortableRows>
      </Box>
      <Divider part="list" label="Height of the list of growths" edge="bottom" />
    </Box>
  );
}

const rowStyle = (hue: string, on: boolean) =>
  ({
    display: 'flex',
    alignItems: 'center',
    justifyContent: 'flex-start',
    gap: 1.25,
    minHeight: 30,
    pl: 1.75,
    pr: 0.75,
    fontSize: 13.5,
    fontFamily: 'inherit',
    textAlign: 'left',
    fontWeight: on ? 650 : 450,
    bgcolor: on ? INK.raised : 'transparent',
    boxShadow: on ? `inset 3px 0 ${hue}` : 'none',
  }) as const;

const Dot = ({ hue, hollow = false }: { hue: string; hollow?: boolean }) => (
  <Box
    component="span"
    sx={{
      width: 9,
      height: 9,
      borderRadius: 5,
      flexShrink: 0,
      border: `2px solid ${hue}`,
      bgcolor: hollow ? 'transparent' : hue,
    }}
  />
);

/** Measured frame by frame; the row around it need not be drawn anew each time. */
function SmallPod({ growth }: { growth: Growth }) {
  const shares = useResults((state) => state.shares.get(growth.id));
  return (
    shares && (
      <svg width="84" height="18" aria-hidden>
        <PodShape shares={shares} width={84} height={18} hue={growth.hue} opacity={growth.visible ? 0.85 : 0.3} />
      </svg>
    )
  );
}

const GrowthRow = memo(function GrowthRow({ growth, selected }: { growth: Growth; selected: boolean }) {
  const [naming, setNaming] = useState(false);
  const failed = useResults((state) => state.record?.growths.some(({ id, failed: bad }) => id === growth.id && bad));
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: growth.id });
  return (
    <Box
      ref={setNodeRef}
      sx={{ ...rowStyle(growth.hue, selected), transform: CSS.Translate.toString(transform), transition }}
    >
      <Dot hue={growth.hue} hollow={!growth.visible} />
      {naming ? (
        <RenameInput
          value={growth.name}
          label="Name of the growth"
          done={(name) => {
            setNaming(false);
            if (name) changeGrowth(growth.id, 'Rename growth', { name });
          }}
        />
      ) : (
        <ButtonBase
          {...attributes}
          {...listeners}
          data-row={growth.id}
          aria-pressed={selected}
          onClick={() => setView({ growth: growth.id, keys: [] })}
          onDoubleClick={() => setNaming(true)}
          sx={{
            flex: 1,
            minWidth: 0,
            minHeight: 28,
            justifyContent: 'space-between',
            gap: 1,
            font: 'inherit',
            color: failed ? 'error.main' : growth.visible ? 'inherit' : 'text.secondary',
          }}
        >
          <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {growth.name}
          </Box>
          <SmallPod growth={growth} />
        </ButtonBase>
      )}
      <IconButton
        aria-label={growth.visible ? `Hide ${growth.name}` : `Show ${growth.name}`}
        onClick={() =>
          changeGrowth(growth.id, growth.visible ? 'Hide growth' : 'Show growth', { visible: !growth.visible })
        }
        sx={{ p: 0.25, color: 'text.secondary' }}
      >
        {growth.visible ? <Visibility sx={{ fontSize: 16 }} /> : <VisibilityOff sx={{ fontSize: 16 }} />}
      </IconButton>
      <MoreMenu
        of={growth.name}
        items={[
          { label: 'Rename', run: () => setNaming(true) },
          { label: 'Duplicate', run: () => duplicateGrowth(growth.id) },
          { label: 'Copy', run: () => withClips(({ copyGrowth }) => copyGrowth(growth)) },
          { label: 'Keep as a cutting', run: () => keepAsCutting(growth.id) },
          { label: 'Copy tracks', run: () => withClips(({ copyTracks }) => copyTracks(growth)) },
          {
            label: 'Delete',
            run: () => {
              const next = rowBeside(useDocument.getState().scene.growths, growth.id);
              deleteGrowth(growth.id);
              focusRow(next);
            },
          },
        ]}
      >
        {(close) => (
          <Box sx={{ display: 'flex', gap: 0.75, px: 2, py: 0.75 }}>
            {HUES.map((hue) => (
              <ButtonBase
                key={hue}
                aria-label={`Hue ${hue}`}
                onClick={() => {
                  changeGrowth(growth.id, 'Change hue', { hue });
                  close();
                }}
                sx={{
                  width: 18,
                  height: 18,
                  borderRadius: 9,
                  bgcolor: hue,
                  outline: growth.hue === hue ? `2px solid ${INK.text}` : 'none',
                }}
              />
            ))}
          </Box>
        )}
      </MoreMenu>
    </Box>
  );
});
