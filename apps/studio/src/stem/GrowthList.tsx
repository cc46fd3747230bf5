'use client';

import dynamic from 'next/dynamic';
import Search from '@mui/icons-material/Search';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import { memo, type MouseEvent, useCallback, useMemo, useState } from 'react';
import { isShown, type Scene } from '@uvrex/core';
import { titleOf } from '@/state/actions/stepActions';
import { useDocument } from '@/state/document/document';
import { moveRow } from '@/state/actions/groups';
import { foundRows, type ListRow, rowsOf } from '@/state/actions/rows';
import { useSizes } from '@/state/storage/panelSizes';
import { chosenIn, SCENE_ENTRY, select, setView, useView } from '@/state/document/view';
import { Divider } from '@/ui/Divider';
import { INK, ONE_CELL } from '@/ui/theme';
import { GrowthRow } from './GrowthRow';
import { Dot, rowStyle } from './listStyle';
import { SortableRows } from './SortableRows';

// Few scenes have groups.
const GroupRow = dynamic(() => import('./GroupRow').then((module) => module.GroupRow), { ssr: false });

/** The scene, its groups and its growths; each with a small pod of how it grows over the range. */
export function GrowthList() {
  const scene = useView((state) => state.growth === SCENE_ENTRY);
  const height = useSizes((sizes) => sizes.list);
  const [find, setFind] = useState<string | null>(null);
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
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, pl: 1.75, pr: 1, pt: 0.75 }}>
          {find === null ? (
            <Box sx={{ flex: 1, fontSize: 12, color: 'text.secondary' }}>Growths</Box>
          ) : (
            <InputBase
              autoFocus
              value={find}
              onChange={(event) => setFind(event.target.value)}
              onKeyDown={(event) => event.key === 'Escape' && setFind(null)}
              onBlur={() => find === '' && setFind(null)}
              placeholder="Name or step"
              inputProps={{ 'aria-label': 'Search growths' }}
              sx={{ flex: 1, fontSize: 12.5, bgcolor: INK.raised, borderRadius: 1, px: 1 }}
            />
          )}
          <IconButton
            aria-label={find === null ? 'Search growths by name or step' : 'Show all growths'}
            aria-pressed={find !== null}
            onClick={() => setFind(find === null ? '' : null)}
            sx={{ p: 0.25, color: find === null ? 'text.secondary' : 'primary.main' }}
          >
            <Search sx={{ fontSize: 16 }} />
          </IconButton>
          <Button
            color="inherit"
            sx={{ fontSize: 12, py: 0.1, color: 'text.secondary' }}
            onClick={() => setView({ palette: 'begin' })}
          >
            + New
          </Button>
        </Box>
        <ButtonBase
          aria-pressed={scene}
          onClick={() => select(SCENE_ENTRY)}
          sx={{ ...rowStyle('#7fb4ff', scene), width: '100%' }}
        >
          <Dot hue="#7fb4ff" />
          Scene, light and camera
        </ButtonBase>
        <Rows wanted={find?.trim() ?? ''} />
      </Box>
      <Divider part="list" label="Height of the list of growths" edge="bottom" />
    </Box>
  );
}

/** A line of the list by its ids alone, which stay while what is in a growth changes. */
type Listed = { group: string; members: string[] } | { growth: string; inGroup: boolean; shown: boolean };

/** What the list shows: all, or where something is wanted what is called so. */
function listNow(scene: Scene, folded: readonly string[], wanted: string): ListRow[] {
  return wanted === ''
    ? rowsOf(scene, folded)
    : foundRows(rowsOf(scene, []), wanted, ({ steps }) => steps.map(titleOf));
}

const listedOf = (rows: readonly ListRow[], groups: Scene['groups']): Listed[] =>
  rows.map((row) =>
    'group' in row
      ? { group: row.id, members: row.members.map(({ id }) => id) }
      : { growth: row.id, inGroup: row.within !== null, shown: isShown({ groups }, row.growth) },
  );

function Rows({ wanted }: { wanted: string }) {
  const folded = useView((state) => state.folded);
  const told = useDocument(({ scene }) => JSON.stringify(listedOf(listNow(scene, folded, wanted), scene.groups)));
  const listed = useMemo(() => JSON.parse(told) as Listed[], [told]);
  if (wanted !== '' && listed.length === 0)
    return <Box sx={{ px: 1.75, py: 0.5, fontSize: 12.5, color: 'text.secondary' }}>No growth is called so.</Box>;
  return <Listing listed={listed} wanted={wanted} />;
}

/** The rows, made anew where another is listed. */
const Listing = memo(function Listing({ listed, wanted }: { listed: readonly Listed[]; wanted: string }) {
  const ids = useMemo(() => listed.map((row) => ('group' in row ? row.group : row.growth)), [listed]);
  const now = useCallback(
    (): ListRow[] => listNow(useDocument.getState().scene, useView.getState().folded, wanted),
    [wanted],
  );
  const choose = useCallback(
    (id: string, event: MouseEvent): void => {
      if (event.ctrlKey || event.metaKey) addToChosen(id);
      else if (event.shiftKey) chooseUpTo(now(), id);
      else select(id);
    },
    [now],
  );
  return (
    <SortableRows
      ids={ids}
      nameOf={(id) => now().find((row) => row.id === id)?.name ?? ''}
      // What is not shown cannot be put in order.
      onMove={(from, to, byKey) => (wanted ? undefined : moveRow(now(), from, to, byKey))}
    >
      {listed.map((row) =>
        'group' in row ? (
          <GroupRow key={row.group} group={row.group} members={row.members} />
        ) : (
          <GrowthRow key={row.growth} growth={row.growth} inGroup={row.inGroup} shown={row.shown} choose={choose} />
        ),
      )}
    </SortableRows>
  );
});

/** Adds a growth to the chosen ones, or takes it from them. */
function addToChosen(id: string): void {
  const chosen = chosenIn(useView.getState());
  const next = chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id];
  if (next.length > 0) setView({ chosen: next, growth: next.includes(id) ? id : next[0], keys: [] });
}

/** Chooses all growths from the selected one to another. */
function chooseUpTo(rows: readonly ListRow[], id: string): void {
  const ids = rows.flatMap((row) => ('growth' in row ? [row.id] : []));
  const { growth } = useView.getState();
  const [from, to] = [Math.max(0, ids.indexOf(growth ?? '')), ids.indexOf(id)];
  setView({ chosen: ids.slice(Math.min(from, to), Math.max(from, to) + 1), keys: [] });
}
