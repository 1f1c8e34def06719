import { Pressable, StyleSheet, TextInput, useWindowDimensions, View } from 'react-native';
import { useChecks } from '@state/check';
import { setCanvas, setClip } from '@state/job';
import { useBoard, useJob } from '../job/job-context';
import { Choice } from '../parts/choice';
import { Mark } from '../parts/mark';
import { TroubleNotice } from '../parts/notice';
import { Heading, Soft, Strong } from '../parts/words';
import { card, colours, fonts, sizes, space, TARGET, WIDE } from '../theme/tokens';
import { type CellRow, type CellOrder, type CellFilter, useCellTable } from './use-cell-table';

const SHOWN: { value: CellFilter; label: string }[] = [
  { value: 'all', label: 'All' },
  { value: 'warn', label: 'With warnings' },
  { value: 'stop', label: 'Stopped' },
];
const ORDERS: { value: CellOrder; label: string }[] = [
  { value: 'worst', label: 'Worst first' },
  { value: 'clip', label: 'By clip' },
  { value: 'placement', label: 'By placement' },
];

/** So many are seen at a glance: they need no search. */
const FEW = 4;

/** Every clip on every canvas for every placement, and how it stands: a grid where there is room, else a list. */
export function CheckGrid() {
  const { edit } = useJob();
  const cells = useBoard();
  const trouble = useChecks((state) => state.trouble);
  const wide = useWindowDimensions().width >= WIDE;
  const { rows, found, shown, setShown, order, setOrder, search, setSearch } = useCellTable(cells);
  // One clip on one canvas is what the findings below tell of.
  if (cells.length < 2) return trouble && <TroubleNotice trouble={trouble} />;
  const stopped = rows.filter(({ worst }) => worst === 'stop').length;
  return (
    <View style={styles.group}>
      <Heading>All clips</Heading>
      {trouble && <TroubleNotice trouble={trouble} />}
      <Soft role="status">
        {`${edit.clips.length === 1 ? '1 clip' : `${edit.clips.length} clips`}, ${cells.length} in all with their canvases. `}
        {stopped === 0 ? 'None is stopped.' : `${stopped} ${stopped === 1 ? 'is' : 'are'} stopped.`}
      </Soft>
      {cells.length > FEW && (
        <>
          <Choice label="Show" value={shown} options={SHOWN} onChange={setShown} />
          {!wide && <Choice label="Order" value={order} options={ORDERS} onChange={setOrder} />}
          <TextInput
            aria-label="Search clips, placements and rules"
            placeholder="Search clips, placements and rules"
            placeholderTextColor={colours.softInk}
            value={search}
            onChangeText={setSearch}
            style={styles.search}
          />
        </>
      )}
      {found.length === 0 && <Soft>No clip matches that. Show all, or search for something else.</Soft>}
      {wide ? <Table rows={found} /> : <List rows={found} />}
    </View>
  );
}

function List({ rows }: { rows: readonly CellRow[] }) {
  return (
    <View role="list" aria-label="All clips" style={styles.list}>
      {rows.map((row) => (
        <View key={toKey(row)} role="listitem" aria-label={toName(row)}>
          <Cell row={row} title={row.cell.clipName} more={row.cell.label} />
        </View>
      ))}
    </View>
  );
}

/** A row for each clip and a column for each placement, those with the worst first. */
function Table({ rows }: { rows: readonly CellRow[] }) {
  const columns = [...new Set(rows.map(({ cell }) => cell.label))];
  const clips = [...new Set(rows.map(({ cell }) => cell.clip))];
  return (
    <View role="table" aria-label="All clips" style={styles.table}>
      <View role="row" style={styles.row}>
        <View role="columnheader" style={styles.head}>
          <Soft>Clip</Soft>
        </View>
        {columns.map((label) => (
          <View key={label} role="columnheader" style={styles.column}>
            <Soft>{label}</Soft>
          </View>
        ))}
      </View>
      {clips.map((clip) => {
        const own = rows.filter(({ cell }) => cell.clip === clip);
        return (
          <View key={clip} role="row" style={styles.row}>
            <View role="rowheader" style={styles.head}>
              <Strong numberOfLines={2}>{own[0]?.cell.clipName ?? ''}</Strong>
            </View>
            {columns.map((label) => (
              <View key={label} role="cell" style={styles.column}>
                {own
                  .filter(({ cell }) => cell.label === label)
                  .map((row) => (
                    <Cell key={toKey(row)} row={row} title={row.words} />
                  ))}
              </View>
            ))}
          </View>
        );
      })}
    </View>
  );
}

const toKey = ({ cell }: CellRow): string => `${cell.clip} ${cell.canvas} ${cell.placement}`;
const toName = ({ cell, words }: CellRow): string => `${cell.clipName}, ${cell.label}: ${words}`;

/** Cell of one clip on one canvas: a tap works on it, and shows its findings. */
function Cell({ row, title, more }: { row: CellRow; title: string; more?: string }) {
  const job = useJob();
  const { cell, worst, words } = row;
  const clip = job.edit.clips.find(({ id }) => id === job.edit.clip);
  const on = clip?.id === cell.clip && clip.canvas === cell.canvas;
  const open = () => {
    setClip(job.id, cell.clip);
    setCanvas(job.id, cell.canvas);
  };
  return (
    <Pressable
      role="button"
      aria-label={`Show ${toName(row)}`}
      aria-pressed={on}
      onPress={open}
      style={[styles.cell, on && styles.on]}
    >
      <Mark standing={worst === 'note' ? 'pass' : worst} size={20} />
      <View style={styles.words}>
        <Strong numberOfLines={2}>{more === undefined ? title : `${title} `}</Strong>
        {more !== undefined && <Soft>{`${more}: ${words}`}</Soft>}
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  search: {
    minHeight: TARGET,
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 6,
    paddingHorizontal: space.m,
    backgroundColor: colours.sheet,
    fontFamily: fonts.text,
    fontSize: sizes.body,
    color: colours.ink,
  },
  list: { gap: space.s },
  table: { gap: space.xs },
  row: { flexDirection: 'row', gap: space.xs, alignItems: 'stretch' },
  head: { width: 190, justifyContent: 'center' },
  column: { flex: 1, minWidth: 0, justifyContent: 'center', gap: space.xs },
  cell: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
    minHeight: TARGET,
    padding: space.s,
    ...card,
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  words: { flex: 1 },
});
