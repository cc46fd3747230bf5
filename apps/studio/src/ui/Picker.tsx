'use client';

import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import InputBase from '@mui/material/InputBase';
import { type KeyboardEvent, type MouseEvent, type ReactNode, useEffect, useRef, useState } from 'react';
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
          ...ENTRIES,
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

/** Marks an entry as pointed at; cards that scroll under a mouse at rest are not. */
const pointed =
  ({ chosen, over }: OneProps) =>
  ({ movementX, movementY }: MouseEvent): void => {
    if (!chosen && (movementX !== 0 || movementY !== 0)) over();
  };

/** An entry as a small moving picture with its name. */
function Card(props: OneProps) {
  const { entry, chosen, pick } = props;
  return (
    <div className="card">
      <button
        type="button"
        {...optionOf(props)}
        aria-label={entry.label}
        title={entry.off ?? entry.help}
        onClick={pick}
        onMouseMove={pointed(props)}
      >
        <span className="picture">
          {entry.picture ? (
            <SmallPicture {...entry.picture} moving={chosen} />
          ) : (
            entry.icon && (
              <span className="symbol">
                <StepIcon icon={entry.icon} />
              </span>
            )
          )}
        </span>
        <span className="name">{entry.label}</span>
        {entry.off && <span className="off">{entry.off}</span>}
      </button>
      {entry.more && <div className="more">{entry.more}</div>}
    </div>
  );
}

/** An entry as a row with a line of help. */
function Line(props: OneProps) {
  const { entry, pick } = props;
  return (
    <button type="button" className="line" {...optionOf(props)} onClick={pick}>
      {entry.icon && (
        <span className="symbol">
          <StepIcon icon={entry.icon} />
        </span>
      )}
      <span className="text">
        <span className="name">{entry.label}</span>
        {entry.help && <span className="help">{entry.help}</span>}
      </span>
      {entry.off && <span className="off">{entry.off}</span>}
      {entry.keys && <span className="keys">{keysText(entry.keys)}</span>}
    </button>
  );
}

const WARNING = '#f2d06b';

/**
 * How entries look: one style of the list, since hundreds of styled components take a third of a second to render. What is scrolled
 * out of sight is not laid out.
 */
const ENTRIES = {
  '& button': {
    font: 'inherit',
    color: 'inherit',
    textAlign: 'left',
    border: 0,
    padding: 0,
    background: 'none',
    cursor: 'pointer',
    borderRadius: '8px',
    width: '100%',
    '&:focus-visible': { outline: `2px solid ${INK.sprout}`, outlineOffset: -2 },
  },
  '& span': { display: 'block' },
  '& .line': {
    display: 'flex',
    alignItems: 'center',
    gap: '16px',
    padding: '5px 16px',
    contentVisibility: 'auto',
    containIntrinsicSize: 'auto 47px',
    '&[aria-disabled=true]': { opacity: 0.65 },
    '&:hover, &[aria-selected=true]': { background: INK.raised },
    '& .symbol': { color: 'primary.main', display: 'flex' },
    '& .text': { flex: 1, minWidth: 0 },
    '& .name': { fontSize: 14, fontWeight: 550 },
    '& .help': { fontSize: 12, color: 'text.secondary' },
    '& .off': { fontSize: 12, color: WARNING },
    '& .keys': { fontFamily: MONO, fontSize: 11.5, color: 'text.secondary', whiteSpace: 'nowrap' },
  },
  '& .card': {
    position: 'relative',
    contentVisibility: 'auto',
    containIntrinsicSize: 'auto 160px',
    '& > button': {
      display: 'block',
      overflow: 'hidden',
      background: INK.ground,
      border: `1px solid ${INK.line}`,
      '&[aria-disabled=true]': { opacity: 0.55 },
      '&[aria-selected=true]': { borderColor: INK.sprout },
    },
    '& .picture': {
      aspectRatio: '3 / 2',
      background: INK.deep,
      display: 'grid',
      placeItems: 'center',
      color: INK.mute,
    },
    '& .symbol': { transform: 'scale(2.2)', display: 'flex' },
    '& .name': { padding: '5px 8px', fontSize: 13, fontWeight: 550, lineHeight: 1.25 },
    '& .off': { padding: '0 8px 5px', fontSize: 11.5, color: WARNING },
    '& > .more': {
      position: 'absolute',
      top: 4,
      right: 4,
      borderRadius: '8px',
      background: INK.panel,
      opacity: 0,
      '& button': { width: 'auto' },
    },
    '&:hover > .more, & > .more:focus-within': { opacity: 1 },
  },
} as const;
