'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import InputBase from '@mui/material/InputBase';
import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { keysText } from '@/state/actions/commands';
import { INK, MONO } from './theme';
import { foundIn } from './found';
import { SmallPicture, type Strip } from './SmallPicture';
import { StepIcon } from './StepIcon';

/** Something that can be picked. */
export interface Entry {
  id: string;
  label: string;
  help?: string;
  /** Other words that it is found by. */
  words?: string;
  icon?: string;
  /** Moments side by side, or one picture. */
  picture?: Strip;
  keys?: string;
  run: () => void;
  /** Why it cannot be picked now. */
  off?: string;
  /** What else can be done with it, beside its card. */
  more?: ReactNode;
}

/** Entries that belong together: as cards with pictures, or as rows with a line of help. */
export interface Section {
  title: string | null;
  as: 'cards' | 'rows';
  entries: readonly Entry[];
  /** Stands beside the others, not among them. */
  beside?: boolean;
}

interface Props {
  label: string;
  placeholder: string;
  sections: readonly Section[];
  wide?: boolean;
  close: () => void;
  pick: (entry: Entry) => void;
  foot?: ReactNode;
}

/** Cards in a row of a section. */
const columnsOf = ({ beside }: Section): number => (beside ? 2 : 4);

/** A field to find by, and below it what is found, to be picked by mouse or keys. */
export function Picker({ label, placeholder, sections, wide = false, close, pick, foot }: Props) {
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState(0);
  const list = useRef<HTMLDivElement>(null);
  const found = foundIn(sections, query);
  const [among, beside] = [found.filter((section) => !section.beside), found.filter((section) => section.beside)];
  const flat = [...among, ...beside].flatMap((section) =>
    section.entries.map((entry, k) => ({ entry, as: section.as, column: k % columnsOf(section) })),
  );
  const active = flat[chosen]?.entry;
  const choose = (entry: Entry | undefined): void => {
    if (entry && !entry.off) pick(entry);
  };

  const pressed = (event: KeyboardEvent): void => {
    const here = flat[chosen];
    const across = here?.as === 'cards';
    const step = (by: number): void => {
      event.preventDefault();
      setChosen(Math.min(flat.length - 1, Math.max(0, chosen + by)));
    };
    if (event.key === 'Enter') choose(active);
    // To and fro in a row of cards, as long as nothing is typed that the cursor would move in.
    else if (across && query === '' && event.key === 'ArrowRight') step(1);
    else if (across && query === '' && event.key === 'ArrowLeft') step(-1);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const way = event.key === 'ArrowDown' ? 1 : -1;
      if (!across) {
        step(way);
        return;
      }
      // To the row below or above: as far along in it, or to its end.
      const rows = rowsOf(flat);
      const row = rows.findIndex((entries) => entries.includes(chosen));
      const next = rows[row + way];
      if (next) step(next[Math.min(here.column, next.length - 1)] - chosen);
      else event.preventDefault();
    }
  };
  useEffect(() => {
    list.current?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);

  let number = 0;
  const drawn = (sections: readonly Section[]): ReactNode =>
    sections.map((section) => (
      <Box
        key={section.title ?? 'all'}
        role={section.title ? 'group' : undefined}
        aria-label={section.title ?? undefined}
      >
        {section.title && (
          <Box aria-hidden sx={{ fontSize: 12, fontWeight: 650, color: 'text.secondary', px: 1.25, pt: 1.25, pb: 0.5 }}>
            {section.title}
          </Box>
        )}
        <Box
          sx={
            section.as === 'cards'
              ? { display: 'grid', gridTemplateColumns: `repeat(${columnsOf(section)}, 1fr)`, gap: 1, px: 1 }
              : {}
          }
        >
          {section.entries.map((entry) => {
            const own = number++;
            const props = { entry, chosen: own === chosen, pick: () => choose(entry), over: () => setChosen(own) };
            return section.as === 'cards' ? <Card key={entry.id} {...props} /> : <Line key={entry.id} {...props} />;
          })}
        </Box>
      </Box>
    ));
  return (
    <Dialog
      open
      onClose={close}
      maxWidth={wide ? 'md' : 'sm'}
      fullWidth
      slotProps={{ paper: { 'aria-label': label, 'aria-labelledby': undefined } }}
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start', pt: wide ? '4vh' : '9vh' } }}
      disableRestoreFocus
    >
      <InputBase
        autoFocus
        placeholder={placeholder}
        value={query}
        onChange={(event) => {
          setQuery(event.target.value);
          setChosen(0);
        }}
        onKeyDown={pressed}
        inputProps={{
          'aria-label': 'Find',
          role: 'combobox',
          'aria-expanded': true,
          'aria-controls': 'picker-list',
          'aria-activedescendant': active ? `picker-${active.id}` : undefined,
        }}
        sx={{ px: 2.5, py: 1.5, fontSize: 16, borderBottom: `1px solid ${INK.line}` }}
      />
      <Box
        ref={list}
        id="picker-list"
        role="listbox"
        aria-label="Found"
        sx={{
          display: 'grid',
          gridTemplateColumns: among.length > 0 && beside.length > 0 ? 'minmax(0, 1fr) minmax(0, 1fr)' : '1fr',
          minHeight: 0,
          '& > div': { overflowY: 'auto', maxHeight: wide ? '74vh' : '56vh', py: 0.75, px: 0.75 },
        }}
      >
        {among.length > 0 && <div>{drawn(among)}</div>}
        {beside.length > 0 && <Box sx={{ borderLeft: `1px solid ${INK.line}` }}>{drawn(beside)}</Box>}
        {flat.length === 0 && <Box sx={{ px: 2.5, py: 1.5, color: 'text.secondary' }}>Nothing is called that.</Box>}
      </Box>
      {foot}
    </Dialog>
  );
}

/** Numbers of entries by the rows that they stand in: cards several in one, each section from a new one on. */
function rowsOf(flat: readonly { as: Section['as']; column: number }[]): number[][] {
  const rows: number[][] = [];
  flat.forEach(({ as, column }, k) => {
    if (as === 'rows' || column === 0) rows.push([k]);
    else rows[rows.length - 1].push(k);
  });
  return rows;
}

interface OneProps {
  entry: Entry;
  chosen: boolean;
  pick: () => void;
  over: () => void;
}

const optionOf = ({ entry, chosen }: OneProps) => ({
  id: `picker-${entry.id}`,
  role: 'option',
  'aria-selected': chosen,
  'aria-disabled': entry.off !== undefined,
});

/** An entry as a small moving picture with its name. */
function Card(props: OneProps) {
  const { entry, chosen, pick, over } = props;
  return (
    <Box
      sx={{ position: 'relative', '& .more': { opacity: 0 }, '&:hover .more, & .more:focus-within': { opacity: 1 } }}
    >
      <ButtonBase
        {...optionOf(props)}
        aria-label={entry.label}
        title={entry.off ?? entry.help}
        onClick={pick}
        onMouseMove={(event) => {
          // Cards that scroll under a mouse at rest are not pointed at.
          if (!chosen && (event.movementX !== 0 || event.movementY !== 0)) over();
        }}
        sx={{
          display: 'block',
          width: '100%',
          textAlign: 'left',
          fontFamily: 'inherit',
          borderRadius: 2,
          overflow: 'hidden',
          bgcolor: INK.ground,
          opacity: entry.off ? 0.55 : 1,
          border: `1px solid ${chosen ? INK.sprout : INK.line}`,
        }}
      >
        <Box sx={{ aspectRatio: '3 / 2', bgcolor: INK.deep, display: 'grid', placeItems: 'center', color: INK.mute }}>
          {entry.picture ? (
            <SmallPicture {...entry.picture} moving={chosen} />
          ) : (
            entry.icon && (
              <Box sx={{ transform: 'scale(2.2)', display: 'flex' }}>
                <StepIcon icon={entry.icon} />
              </Box>
            )
          )}
        </Box>
        <Box sx={{ px: 1, py: 0.6, fontSize: 13, fontWeight: 550, lineHeight: 1.25 }}>{entry.label}</Box>
        {entry.off && <Box sx={{ px: 1, pb: 0.6, fontSize: 11.5, color: '#f2d06b' }}>{entry.off}</Box>}
      </ButtonBase>
      {entry.more && (
        <Box className="more" sx={{ position: 'absolute', top: 4, right: 4, borderRadius: 2, bgcolor: INK.panel }}>
          {entry.more}
        </Box>
      )}
    </Box>
  );
}

/** An entry as a row with a line of help. */
function Line(props: OneProps) {
  const { entry, chosen, pick } = props;
  return (
    <ButtonBase
      {...optionOf(props)}
      onClick={pick}
      sx={{
        width: '100%',
        justifyContent: 'flex-start',
        textAlign: 'left',
        fontFamily: 'inherit',
        borderRadius: 2,
        px: 2,
        py: 0.6,
        gap: 2,
        opacity: entry.off ? 0.65 : 1,
        bgcolor: chosen ? INK.raised : undefined,
        '&:hover': { bgcolor: INK.raised },
      }}
    >
      {entry.icon && (
        <Box sx={{ color: 'primary.main', display: 'flex' }}>
          <StepIcon icon={entry.icon} />
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontSize: 14, fontWeight: 550 }}>{entry.label}</Box>
        {entry.help && <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{entry.help}</Box>}
      </Box>
      {entry.off && <Box sx={{ fontSize: 12, color: '#f2d06b' }}>{entry.off}</Box>}
      {entry.keys && (
        <Box sx={{ fontFamily: MONO, fontSize: 11.5, color: 'text.secondary', whiteSpace: 'nowrap' }}>
          {keysText(entry.keys)}
        </Box>
      )}
    </ButtonBase>
  );
}
