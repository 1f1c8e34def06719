import { Pressable, StyleSheet, View } from 'react-native';
import { duplicateCanvas, moveCanvas, removeCanvas, type Canvases } from '@core/job/canvases';
import type { ActOf } from '@core/job/commands/commands';
import { ratioLabel } from '@core/picture/size';
import { rateLabel } from '@core/time/frame-rate';
import { dispatch, setCanvas } from '@state/job';
import { Tool } from '../parts/tool';
import { Soft, Strong } from '../parts/words';
import { canvasMark } from '../theme/dyes';
import { card, colours, space } from '../theme/tokens';
import { useClip, useJob } from './job-context';
import { useCanvasLabel } from './use-target';

/** The clip's canvases in their order, each in its dye; the one that is worked on can be moved, copied, removed. */
export function CanvasList() {
  const labelOf = useCanvasLabel();
  const { id } = useJob();
  const clip = useClip();
  const { canvases } = clip;
  const act = (name: ActOf<'set-canvases'>, next: Canvases) =>
    dispatch(id, { type: 'set-canvases', act: name, ...next });
  return (
    <View role="list" aria-label="Canvases" style={styles.list}>
      {canvases.map((canvas, i) => {
        const on = canvas.id === clip.canvas;
        const label = labelOf(canvas);
        const facts = `${canvas.width}×${canvas.height}, ${ratioLabel(canvas)}, ${rateLabel(canvas.rate)} fps, ${canvas.layout.kind}`;
        return (
          <View
            key={canvas.id}
            role="listitem"
            aria-label={`${label}${on ? ', worked on' : ''}`}
            style={[styles.row, { borderLeftColor: canvasMark(canvas.dye).dye }, on && styles.on]}
          >
            <Pressable
              role="button"
              aria-label={`Work on ${label} ${facts}`}
              onPress={() => setCanvas(id, canvas.id)}
              style={styles.words}
            >
              <Strong>{`${label} `}</Strong>
              <Soft>{facts}</Soft>
            </Pressable>
            {on && (
              <View style={styles.tools}>
                <Tool
                  icon="arrow-up"
                  label={`Move ${label} up`}
                  words=""
                  disabled={i === 0}
                  onPress={() => act('move', moveCanvas(clip, canvas.id, -1))}
                />
                <Tool
                  icon="arrow-down"
                  label={`Move ${label} down`}
                  words=""
                  disabled={i === canvases.length - 1}
                  onPress={() => act('move', moveCanvas(clip, canvas.id, 1))}
                />
                <Tool
                  icon="content-duplicate"
                  label={`Duplicate ${label}`}
                  words=""
                  onPress={() => act('duplicate', duplicateCanvas(clip, canvas.id))}
                />
                <Tool
                  icon="delete-outline"
                  label={`Remove ${label}`}
                  words=""
                  disabled={canvases.length === 1}
                  onPress={() => act('remove', removeCanvas(clip, canvas.id))}
                />
              </View>
            )}
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
  row: { padding: space.s, paddingLeft: space.m, ...card, borderLeftWidth: 6 },
  on: { backgroundColor: colours.woadWash },
  words: { minHeight: 44, justifyContent: 'center' },
  tools: { flexDirection: 'row', gap: space.xs },
});
