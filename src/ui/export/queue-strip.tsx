import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { StyleSheet, View, type ViewProps } from 'react-native';
import { cancelExport, pauseExport, resumeExport } from '@state/export';
import { useJob } from '../job/job-context';
import { useCanvasLabel } from '../job/use-target';
import { StripBar } from '../parts/strip-bar';
import { Tool } from '../parts/tool';
import { Soft, Strong } from '../parts/words';
import { canvasMark } from '../theme/dyes';
import { card, colours, space, TARGET } from '../theme/tokens';
import type { QueuedExport } from './queue';
import { progressWords, STAGES } from './queue-words';

interface Props extends QueuedExport {
  /** True when nothing that waits stands before it, or behind it. */
  first: boolean;
  last: boolean;
  /** Puts it one place forward (−1) or back (1). */
  onMove: (by: -1 | 1) => void;
}

/** Strip of one export in the queue: it fills, with what can be done to it. */
export function QueueStrip({ jobId, record, running, first, last, onMove }: Props) {
  const label = useCanvasLabel()(record);
  const job = useJob();
  const waits = running?.stage === 'waiting';
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: record.id, disabled: !waits });
  const handle = { ...attributes, ...listeners } as unknown as ViewProps;
  return (
    <View
      ref={setNodeRef as never}
      role="listitem"
      aria-label={`${record.fileName} in the queue`}
      style={[
        styles.strip,
        { borderLeftColor: canvasMark(record.dye).dye },
        { transform: CSS.Translate.toString(transform), transition } as object,
        isDragging && styles.dragged,
      ]}
    >
      <View style={styles.head}>
        {waits && (
          <View
            ref={setActivatorNodeRef as never}
            {...handle}
            aria-label={`Move ${record.fileName}`}
            style={styles.handle}
          >
            <MaterialCommunityIcons name="drag" size={24} color={colours.ink} />
          </View>
        )}
        <View style={styles.words}>
          <Strong>{record.fileName}</Strong>
          <Soft>
            {label}
            {jobId === job.id ? '' : ', of another job'}
          </Soft>
        </View>
      </View>
      <StripBar
        label={`${STAGES[running?.stage ?? 'waiting']} ${record.fileName}`}
        done={running?.done ?? record.share ?? 0}
        total={running?.total ?? 1}
      />
      <Soft>{running ? progressWords(running, record.frames) : 'Paused: what is made so far is kept.'}</Soft>
      <View style={styles.tools}>
        {waits && !first && (
          <Tool
            icon="arrow-up"
            label={`Make ${record.fileName} earlier`}
            words="Earlier"
            onPress={() => onMove(-1)}
          />
        )}
        {waits && !last && (
          <Tool
            icon="arrow-down"
            label={`Make ${record.fileName} later`}
            words="Later"
            onPress={() => onMove(1)}
          />
        )}
        {running ? (
          <Tool
            icon="pause"
            label={`Pause ${record.fileName}`}
            words="Pause"
            onPress={() => void pauseExport(record.id)}
          />
        ) : (
          <Tool
            icon="play"
            label={`Resume ${record.fileName}`}
            words="Resume"
            onPress={() => resumeExport(jobId, record)}
          />
        )}
        <Tool
          icon="close"
          label={`Cancel ${record.fileName}`}
          words="Cancel"
          onPress={() => void cancelExport(jobId, record.id)}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { ...card, gap: space.s, padding: space.m, borderLeftWidth: 6 },
  dragged: { zIndex: 1, borderColor: colours.woad },
  head: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  handle: {
    width: TARGET,
    height: TARGET,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'grab',
    touchAction: 'none',
  } as object,
  words: { flex: 1 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
