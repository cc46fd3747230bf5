'use client';

import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import { DataGrid, type GridColDef, type GridSortModel } from '@mui/x-data-grid';
import { useEffect, useMemo, useState } from 'react';
import { at, figure, type Sheet, type SheetColumn, type SheetOf } from '@uvrex/core';
import { spreadOf } from '@uvrex/core/page';
import { growthIn, useDocument } from '@/state/document/document';
import { useInspection, wantedGrowth } from '@/state/director/inspection';
import { setView, useView } from '@/state/document/view';
import { styleNonce } from '@/ui/styleNonce';
import { INK, MONO } from '@/ui/theme';
import { orderOf } from './order';
import { columnLabel, SHEETS } from './words';

const PAGE = 100;
const field = ({ name, part }: { name: string; part: number | null }): string => `${name} ${part ?? ''}`;

/** What the selected growth knows at this frame, element by element, below the picture. */
export function AttributeTable() {
  const wanted = useView(wantedGrowth);
  const selected = useView((state) => state.growth);
  const shade = useView((state) => state.shade);
  const name = useDocument((state) => growthIn(state.scene, wanted)?.name);
  const inspected = useInspection((state) => state.inspected);
  const [tab, setTab] = useState<SheetOf>('vertices');
  useEffect(() => {
    // Colours of another growth go when one looks into this one.
    const { shade: now, tool } = useView.getState();
    if (now && now.growth !== selected && tool !== 'paint') setView({ shade: null });
  }, [selected]);
  useEffect(() => () => setView({ pins: [] }), []);
  const sheets = inspected?.growth === wanted ? inspected.sheets : [];
  const sheet = sheets.find(({ of }) => of === tab) ?? sheets[0];
  return (
    <Box
      component="section"
      aria-label="Attributes"
      sx={{
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        bgcolor: INK.panel,
        borderTop: `1px solid ${INK.line}`,
        overflow: 'hidden',
        fontSize: 13,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, pl: 2, pr: 0.5, minHeight: 38 }}>
        <Box component="h2" sx={{ m: 0, fontSize: 14, whiteSpace: 'nowrap' }}>
          {name ? `Attributes of ${name}` : 'Attributes'}
        </Box>
        {sheet && (
          <Tabs value={sheet.of} onChange={(_, next: SheetOf) => setTab(next)} sx={{ minHeight: 34, flexGrow: 1 }}>
            {sheets.map(({ of, count }) => (
              <Tab
                key={of}
                value={of}
                label={`${SHEETS[of]} ${count.toLocaleString('en-GB')}`}
                sx={{ minHeight: 34, py: 0, px: 1.25, fontSize: 12.5 }}
              />
            ))}
          </Tabs>
        )}
        {sheet && wanted && <ShadeChooser growth={wanted} sheet={sheet} />}
        <IconButton aria-label="Close the table" onClick={() => setView({ table: false })} sx={{ ml: 'auto' }}>
          <Close fontSize="small" />
        </IconButton>
      </Box>
      {sheet && wanted ? (
        <SheetGrid key={sheet.of} sheet={sheet} shaded={shade?.of === sheet.of ? field(shade) : null} />
      ) : (
        <Box sx={{ px: 2, py: 1, color: 'text.secondary' }}>
          {wanted ? 'Nothing is there at this frame.' : 'Select a growth to see what it knows.'}
        </Box>
      )}
    </Box>
  );
}

/** Which column is shown as colours. */
function ShadeChooser({ growth, sheet }: { growth: string; sheet: Sheet }) {
  const shade = useView((state) => state.shade);
  const value = shade?.of === sheet.of ? field(shade) : '';
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, whiteSpace: 'nowrap' }}>
      <Box component="span" sx={{ color: 'text.secondary', fontSize: 12 }}>
        Show as colours
      </Box>
      <Select
        variant="standard"
        disableUnderline
        displayEmpty
        value={sheet.columns.some((column) => field(column) === value) ? value : ''}
        inputProps={{ 'aria-label': 'Show as colours' }}
        sx={{ bgcolor: INK.raised, borderRadius: '7px', px: 1, fontSize: 12.5, height: 25, minWidth: 130 }}
        onChange={({ target }) => {
          const column = sheet.columns.find((one) => field(one) === target.value);
          setView({
            shade: column ? { growth, of: sheet.of, name: column.name, part: column.part, range: null } : null,
          });
        }}
      >
        <MenuItem value="" sx={{ fontSize: 13 }}>
          Nothing
        </MenuItem>
        {sheet.columns.map((column) => (
          <MenuItem key={field(column)} value={field(column)} sx={{ fontSize: 13 }}>
            {columnLabel(column)}
          </MenuItem>
        ))}
      </Select>
    </Box>
  );
}

/** The rows of a sheet, a page at a time: a hundred thousand of them are sorted as numbers, and never made into rows. */
function SheetGrid({ sheet, shaded }: { sheet: Sheet; shaded: string | null }) {
  const [page, setPage] = useState(0);
  const [sort, setSort] = useState<GridSortModel>([]);
  const [marked, setMarked] = useState<number | null>(null);
  const columns = useMemo(() => columnsOf(sheet, shaded), [sheet, shaded]);
  const order = useMemo(() => {
    const [by] = sort;
    const column = by && sheet.columns.find((one) => field(one) === by.field);
    return by?.sort && column ? orderOf(column.values, by.sort) : null;
  }, [sheet, sort]);
  const rows = useMemo(() => {
    const first = Math.min(page, Math.max(0, Math.ceil(sheet.count / PAGE) - 1)) * PAGE;
    return Array.from({ length: Math.min(PAGE, sheet.count - first) }, (_, k) => {
      const id = order ? order[first + k] : first + k;
      const row: Record<string, number> = { id };
      for (const column of sheet.columns) row[field(column)] = column.values[id];
      return row;
    });
  }, [sheet, page, order]);
  const mark = (row: number | null): void => {
    setMarked(row);
    const place = row === null ? null : at(sheet.places, row);
    setView({ pins: place ? [{ place, label: `${row! + 1}` }] : [] });
  };
  useEffect(() => {
    // The mark stays with its element while the form moves.
    if (marked !== null) mark(marked < sheet.count ? marked : null);
    // oxlint-disable-next-line react/exhaustive-deps
  }, [sheet]);
  return (
    <DataGrid
      rows={rows}
      columns={columns}
      density="compact"
      columnHeaderHeight={60}
      rowHeight={26}
      disableColumnMenu
      nonce={styleNonce()}
      disableMultipleRowSelection
      sortingMode="server"
      sortModel={sort}
      onSortModelChange={(next) => {
        setSort(next);
        setPage(0);
      }}
      paginationMode="server"
      rowCount={sheet.count}
      pageSizeOptions={[PAGE]}
      paginationModel={{ page, pageSize: PAGE }}
      onPaginationModelChange={(next) => setPage(next.page)}
      rowSelectionModel={{ type: 'include', ids: new Set(marked === null ? [] : [marked]) }}
      onRowClick={({ id }) => mark(marked === id ? null : Number(id))}
      sx={{
        border: 0,
        fontFamily: MONO,
        fontSize: 12,
        '& .MuiDataGrid-columnHeader': { bgcolor: INK.panel },
        '& .MuiDataGrid-withBorderColor': { borderColor: INK.line },
        '& .shaded': { bgcolor: `${INK.sprout}14` },
        '& .MuiDataGrid-footerContainer': { minHeight: 34, maxHeight: 34 },
        '& .MuiTablePagination-displayedRows': { my: 0 },
        // It has a height of its own, as important as this.
        '& .MuiDataGrid-footerContainer .MuiTablePagination-toolbar': { minHeight: '33px !important' },
      }}
    />
  );
}

function columnsOf(sheet: Sheet, shaded: string | null): GridColDef[] {
  const number: GridColDef = {
    field: 'id',
    headerName: 'Row',
    width: 78,
    sortable: false,
    valueFormatter: (id: number) => String(id + 1),
    cellClassName: 'muted',
  };
  return [
    number,
    ...sheet.columns.map((column): GridColDef => ({
      field: field(column),
      headerName: columnLabel(column),
      // Wide enough for its name, with the sign of sorting beside it.
      width: Math.max(140, 48 + 8 * columnLabel(column).length),
      align: 'right',
      headerAlign: 'right',
      cellClassName: field(column) === shaded ? 'shaded' : '',
      renderHeader: () => <Head column={column} />,
      valueFormatter: (value: number) => (Number.isNaN(value) ? '–' : figure(value, 5)),
    })),
  ];
}

/** A column's name over its least and greatest value and its mean. */
function Head({ column }: { column: SheetColumn }) {
  const spread = useMemo(() => spreadOf(column.values), [column]);
  return (
    <Box sx={{ textAlign: 'right', lineHeight: 1.3 }}>
      <Box sx={{ fontFamily: 'inherit', fontWeight: 600, fontSize: 12 }}>{columnLabel(column)}</Box>
      <Box
        sx={{ fontFamily: MONO, fontSize: 10.5, color: INK.mute }}
        title={spread ? `Least, greatest and mean of ${spread.count.toLocaleString('en-GB')} values` : undefined}
      >
        {spread ? `${figure(spread.least, 2)} to ${figure(spread.most, 2)}` : 'none'}
        <br />
        {spread && `mean ${figure(spread.mean, 3)}`}
      </Box>
    </Box>
  );
}
