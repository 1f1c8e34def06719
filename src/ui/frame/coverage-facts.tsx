import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { planOfJob } from '@core/check/check';
import { sharpWidth } from '@core/framing/moves';
import { type BareReason, computeCoverage } from '@core/proof/coverage';
import { activeCanvas } from '@core/job/clip';
import { activeClip } from '@core/job/job';
import { findEnlargement } from '@core/render/enlarged';
import { plannedFrame } from '@core/render/plan';
import { redrawSegments, withSegments } from '@core/render/redraw-segments';
import { formatTimecode } from '@core/time/timecode';
import { dispatch } from '@state/job';
import { withDraft, player, usePlayer } from '@state/player';
import { useJob, useSource } from '../job/job-context';
import { Figures, Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import type { FramingTools } from './use-framing';
import { useRuleSheets } from '../job/use-target';

const BARE: Record<BareReason, string> = { bars: 'bars', gap: 'a gap' };

/** The proof that the canvas is covered, its least margin, and how much the master is enlarged. */
export function CoverageFacts({ tools }: { tools: FramingTools }) {
  const settled = useJob();
  const sheets = useRuleSheets();
  const draft = usePlayer((state) => state.draft);
  const { rate } = useSource();
  const { margin, enlarged, canvas, fits, shot } = tools;
  const whole = useMemo(() => planOfJob(settled, sheets), [settled, sheets]);
  const { coverage, plan, worst } = useMemo(() => {
    const { edit } = withDraft(settled, draft);
    const change = { ...edit, changed: draft?.framings ?? [] };
    const shown = withSegments(whole, redrawSegments(whole, activeCanvas(activeClip(edit)), change));
    return {
      coverage: computeCoverage(shown),
      plan: shown,
      worst: findEnlargement(shown, shot.id)?.worst ?? 0,
    };
  }, [whole, settled, draft, shot.id]);
  const pixels = (value: number) => String(Math.round(value));
  const goWorst = () => {
    const { masterFrame, source } = plannedFrame(plan, Math.min(coverage.worstFrame, plan.frames - 1));
    player.showFrame(masterFrame, plan.sources[source]?.id);
  };
  const most = Math.max(enlarged, worst);
  const sharp = sharpWidth(most, canvas.width);
  const rows: [string, string][] = fits
    ? [['The whole picture', 'is shown']]
    : [
        ['Margin left, right', `${pixels(margin.left)}, ${pixels(margin.right)} px`],
        ['Margin top, bottom', `${pixels(margin.top)}, ${pixels(margin.bottom)} px`],
      ];
  rows.push([most > 1 ? 'Enlarged to' : 'Shown at', `${(most * 100).toFixed(1)} %`]);
  rows.push(['Sharp up to', `${sharp}×${Math.floor((sharp * canvas.height) / canvas.width / 2) * 2}`]);
  const least = Number.isFinite(coverage.minMargin) ? `${pixels(coverage.minMargin)} px` : 'none needed';
  const bare = `${BARE[coverage.reason ?? 'gap']} on ${coverage.bareShots.length} of ${coverage.shots} shots`;
  return (
    <View style={styles.facts}>
      {rows.map(([name, value]) => (
        <View key={name} aria-label={`${name}: ${value}`}>
          <Soft>{name}</Soft>
          <Figures style={styles.value}>{value}</Figures>
        </View>
      ))}
      <View aria-label={`Coverage: ${coverage.covered ? `least margin ${least}` : bare}`}>
        <Soft>{coverage.covered ? 'Covered, least margin' : 'Not covered'}</Soft>
        <Figures style={[styles.value, !coverage.covered && styles.bare]}>
          {coverage.covered ? least : bare}
        </Figures>
      </View>
      <View style={styles.acts}>
        <Button
          compact
          onPress={goWorst}
          accessibilityLabel={`Go to the worst frame, ${formatTimecode(coverage.worstFrame, rate)}`}
        >
          Worst frame
        </Button>
        {!coverage.covered && coverage.reason === 'bars' && (
          <Button compact mode="contained" onPress={() => dispatch(settled.id, { type: 'fill-canvas' })}>
            Fill
          </Button>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  facts: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.l, rowGap: space.xs },
  value: { fontSize: 13 },
  bare: { color: colours.madder },
  acts: { flexDirection: 'row', flexWrap: 'wrap', marginLeft: -space.s },
});
