import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { ExportRecord } from '@core/job/records';
import {
  moveExport,
  toQueuePlace,
  type ExportProgress,
  useExportQueue,
  doneNotice,
  noticeState,
  setDoneNotice,
} from '@state/export';
import { useJobs } from '@state/job';
import { CheckBox } from '../parts/check-box';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { QueueStrip } from './queue-strip';

/** An export in the queue, and how far it is; one that is held has no progress. */
export interface QueuedExport {
  jobId: string;
  record: ExportRecord;
  running: ExportProgress | null;
}

/** A finger that rests a moment takes hold; one that moves scrolls the page. */
const TOUCH = { delay: 150, tolerance: 8 };

/** Queue of exports of all jobs, in the order in which they are made. */
export function Queue() {
  const queued = useQueued();
  const tells = doneNotice.use((state) => state.value) === 'on';
  const [refused, setRefused] = useState(false);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: TOUCH }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (queued.length === 0) return null;
  const ids = queued.map(({ record }) => record.id);
  const waits = (id: string) => queued.find(({ record }) => record.id === id)?.running?.stage === 'waiting';
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
    if (from < 0 || to < 0 || from === to) return;
    moveExport(String(active.id), ids[to > from ? to + 1 : to] ?? null);
  };
  return (
    <View style={styles.queue}>
      <Heading>Queue</Heading>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={ids.filter(waits)} strategy={verticalListSortingStrategy}>
          <View role="list" aria-label="Queue" style={styles.list}>
            {queued.map((one, i) => (
              <QueueStrip
                key={one.record.id}
                {...one}
                first={!waits(ids[i - 1] ?? '')}
                last={!waits(ids[i + 1] ?? '')}
                onMove={(by) => moveExport(one.record.id, findNeighbour(queued, i, by))}
              />
            ))}
          </View>
        </SortableContext>
      </DndContext>
      {noticeState() !== 'missing' && (
        <>
          <CheckBox
            label="Tell me when an export is done"
            on={tells}
            onChange={(on) => void setDoneNotice(on).then((is) => setRefused(on && !is))}
          />
          {refused && <Soft>This browser blocks notifications: allow them in its settings.</Soft>}
        </>
      )}
    </View>
  );
}

/**
 * The export before which one goes by a step. Those of one go stand and move together: a step passes all of another.
 * @returns null for the end.
 */
function findNeighbour(queued: readonly QueuedExport[], at: number, by: number): string | null {
  const toKey = (one: QueuedExport | undefined) => one && (one.record.go ?? one.record.id);
  const own = toKey(queued[at]);
  const keys = queued.map(toKey);
  if (by < 0) {
    const earlier = keys[keys.indexOf(own) - 1];
    return queued[keys.indexOf(earlier)]?.record.id ?? null;
  }
  const later = keys[keys.lastIndexOf(own) + 1];
  return queued[keys.lastIndexOf(later) + 1]?.record.id ?? null;
}

/** Running first, then what waits in its order, then what is held. */
function useQueued(): QueuedExport[] {
  const running = useExportQueue((state) => state.running);
  const listed = useJobs((state) => state.listed);
  const rank = ({ running }: QueuedExport) => (running === null ? 2 : running.stage === 'waiting' ? 1 : 0);
  return Object.entries(listed)
    .flatMap(([jobId, { exports }]) =>
      exports.map((record): QueuedExport => ({ jobId, record, running: running[record.id] ?? null })),
    )
    .filter(({ record, running }) => running !== null || record.state === 'paused')
    .sort((a, b) => rank(a) - rank(b) || toQueuePlace(a.record) - toQueuePlace(b.record));
}

const styles = StyleSheet.create({
  queue: { gap: space.s },
  list: { gap: space.s },
});
