import {
  type ColumnDef,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { type BoardCell, countWhole, rankSeverity, findWorstSeverity } from '@core/check/check-board';
import { ruleName } from '@core/check/finding';
import type { Severity } from '@core/check/rule';

/** Filter of the cells: all, those with a stop, or those with a warning or a stop. */
export type CellFilter = 'all' | 'warn' | 'stop';
export type CellOrder = 'worst' | 'clip' | 'placement';

/** A cell with what is told of it at a glance. */
export interface CellRow {
  cell: BoardCell;
  worst: Severity;
  /** `2 stops, 1 warning`, or `passed`. */
  words: string;
}

const NAMES: [Severity, string, string][] = [
  ['stop', 'stop', 'stops'],
  ['warn', 'warning', 'warnings'],
  ['unknown', 'not known yet', 'not known yet'],
];

function toRow(cell: BoardCell): CellRow {
  const parts = NAMES.flatMap(([severity, one, many]) => {
    const count = cell.findings.filter((finding) => countWhole(finding, cell.overrides) === severity).length;
    return count > 0 ? [`${count} ${count === 1 ? one : many}`] : [];
  });
  return { cell, worst: findWorstSeverity(cell), words: parts.join(', ') || 'passed' };
}

/** Rules that did not pass, by name, so that a search finds them. */
const failing = ({ findings }: BoardCell): string =>
  findings
    .filter(({ severity }) => severity !== 'pass')
    .map(({ rule }) => ruleName(rule))
    .join(' ');

const COLUMNS: ColumnDef<CellRow>[] = [
  { id: 'worst', accessorFn: ({ worst }) => rankSeverity(worst), enableGlobalFilter: false },
  { id: 'clip', accessorFn: ({ cell }) => cell.clipName },
  { id: 'placement', accessorFn: ({ cell }) => cell.label },
  { id: 'rules', accessorFn: ({ cell }) => failing(cell) },
];

/** The cells of a job filtered, sorted and searched. */
export function useCellTable(cells: BoardCell[]) {
  const [shown, setShown] = useState<CellFilter>('all');
  const [order, setOrder] = useState<CellOrder>('worst');
  const [search, setSearch] = useState('');
  const rows = useMemo(() => cells.map(toRow), [cells]);
  const data = useMemo(
    () => rows.filter(({ worst }) => shown === 'all' || rankSeverity(worst) >= rankSeverity(shown)),
    [rows, shown],
  );
  const state = useMemo(
    () => ({ globalFilter: search, sorting: [{ id: order, desc: order === 'worst' }] }),
    [search, order],
  );
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing here is remembered over the table
  const table = useReactTable({
    data,
    columns: COLUMNS,
    state,
    // There are no pages: going back to the first would draw the table again, and so on without end.
    autoResetPageIndex: false,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: ({ id }) => id !== 'worst',
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const found = table.getRowModel().rows.map(({ original }) => original);
  return { rows, found, shown, setShown, order, setOrder, search, setSearch };
}
