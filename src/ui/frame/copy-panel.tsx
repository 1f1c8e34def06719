import { useState } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { type CopyScope, copyFraming } from '@core/framing/keyframes';
import type { Shot } from '@core/cut/shot';
import { findFraming } from '@core/layout/find-framing';
import { dispatch } from '@state/job';
import { useJob } from '../job/job-context';
import { Choice } from '../parts/choice';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft, Strong } from '../parts/words';
import { card, colours, TARGET } from '../theme/tokens';
import type { FramingTools } from './use-framing';

const WHAT: readonly { value: CopyScope; label: string }[] = [
  { value: 'all', label: 'Everything' },
  { value: 'zoom', label: 'Zoom only' },
  { value: 'place', label: 'Position only' },
  { value: 'keyframes', label: 'Motion only' },
];

/** Copies the framing on screen to other shots of the master. */
export function CopyPanel({ tools }: { tools: FramingTools }) {
  const job = useJob();
  const [what, setWhat] = useState<CopyScope>('all');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const { shots, shot, number, canvas, framing, track, owner, frame } = tools;
  const others = shots.filter((other) => other.id !== shot.id);
  const next = shots[number];
  const copyTo = (targets: readonly Shot[]) => {
    const framings = targets.map((target) =>
      copyFraming(
        { framing, shot, frame: frame },
        { framing: findFraming(canvas, job.edit.framings, target, track), shot: target },
        what,
      ),
    );
    dispatch(job.id, { type: 'set-framings', act: 'copy', owner, framings });
    setChosen([]);
  };
  if (others.length === 0) return <Soft>The master has only one shot, so there is no other to copy to.</Soft>;
  return (
    <>
      <Choice label="What is copied" value={what} options={WHAT} onChange={setWhat} />
      <ToolRow>
        <Tool
          icon="arrow-right-bold-box-outline"
          label="Copy to the next shot"
          words="To the next"
          disabled={!next}
          onPress={() => next && copyTo([next])}
        />
        <Tool
          icon="checkbox-multiple-marked-outline"
          label="Copy to the chosen shots"
          words="To the chosen"
          disabled={chosen.length === 0}
          onPress={() => copyTo(others.filter((shot) => chosen.includes(shot.id)))}
        />
        <Tool icon="select-all" label="Copy to all shots" words="To all" onPress={() => copyTo(others)} />
        {shots.map((other, i) => {
          const on = chosen.includes(other.id);
          if (other.id === shot.id) return null;
          return (
            <Pressable
              key={other.id}
              role="checkbox"
              aria-label={`Choose shot ${i + 1}`}
              aria-checked={on}
              onPress={() => setChosen(on ? chosen.filter((id) => id !== other.id) : [...chosen, other.id])}
              style={[styles.chip, on && styles.on]}
            >
              <Strong>{i + 1}</Strong>
            </Pressable>
          );
        })}
      </ToolRow>
    </>
  );
}

const styles = StyleSheet.create({
  chip: { minWidth: TARGET, minHeight: TARGET, alignItems: 'center', justifyContent: 'center', ...card },
  on: { borderColor: colours.woad, borderWidth: 2, backgroundColor: colours.woadWash },
});
