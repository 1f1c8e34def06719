import { useEffect, useState } from 'react';
import { Image, Pressable, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { activeCanvas } from '@core/job/clip';
import { exportFileName } from '@core/job/export-name';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import type { Cover } from '@core/words/clip-text';
import { formatTimecode } from '@core/time/timecode';
import { toOutputFrame } from '@core/words/spans';
import { coverFile, getCover, coverSize, proposeCovers, smallCover } from '@state/picture';
import { dispatch } from '@state/job';
import { player, usePlayer } from '@state/player';
import { ratioLabel } from '@core/picture/size';
import { useClip, useJob, useLooks } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { TroubleNotice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import { ClipStrip } from './clip-strip';
import { LookPanel } from './look-panel';
import { useCanvasPlan, useTimeline, type WordsTools } from './use-words';
import { BlockWords } from './write-panel';

/** Rows of a proposal. */
const ROWS = 150;

/** The frame on screen as a cover. */
function useCoverHere(): { here: Cover | null; choose: (cover: Cover) => void } {
  const { id } = useJob();
  const timeline = useTimeline();
  const master = usePlayer((state) => state.master);
  const frame = usePlayer((state) => state.frame);
  const inClip = toOutputFrame({ master, frame }, timeline) !== null;
  return {
    here: inClip ? { master, frame } : null,
    choose(cover) {
      dispatch(id, { type: 'set-cover', cover });
      player.showFrame(cover.frame, cover.master);
    },
  };
}

/** Tray of the cover. */
export function CoverTray({ tools }: { tools: WordsTools }) {
  const job = useJob();
  const sheets = useRuleSheets();
  const { here, choose } = useCoverHere();
  const [saving, setSaving] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const { block } = tools;
  const save = async (form: 'png' | 'jpg') => {
    setSaving(true);
    setTrouble(null);
    try {
      const name = exportFileName(job, { sheets }).replace(/\.\w+$/, '-cover');
      saveFile(await coverFile(job, form, name));
    } catch (error) {
      setTrouble(toTrouble(error, 'export-failed', {}));
    }
    setSaving(false);
  };
  const addWords = () =>
    tools.add({
      on: 'cover',
      text: 'Your words',
      box: { x: 0.08, y: 0.36, width: 0.84, height: 0.28 },
      fitted: true,
    });
  return (
    <View style={styles.panel}>
      {trouble && <TroubleNotice trouble={trouble} />}
      {block?.on === 'cover' && <BlockWords tools={tools} block={block} />}
      <ToolRow>
        <Tool
          icon="image-check-outline"
          label="Take this frame as the cover"
          words="Take this frame"
          disabled={here === null}
          onPress={() => here && choose(here)}
        />
        <Tool icon="format-text" label="Words on the cover" words="Words" onPress={addWords} />
        <Tool
          icon="delete-outline"
          label="Remove the words"
          words="Remove"
          disabled={block?.on !== 'cover'}
          onPress={tools.remove}
        />
        <Tool
          icon="file-png-box"
          label="Save PNG of the cover"
          words="Save PNG"
          disabled={saving}
          onPress={() => void save('png')}
        />
        <Tool
          icon="file-jpg-box"
          label="Save JPEG of the cover"
          words="Save JPEG"
          disabled={saving}
          onPress={() => void save('jpg')}
        />
      </ToolRow>
    </View>
  );
}

/** The cover that is chosen, and what is proposed. */
export function CoverWork({ tools }: { tools: WordsTools }) {
  const clip = useClip();
  const timeline = useTimeline();
  const { choose } = useCoverHere();
  const cover = getCover(clip);
  const proposals = useProposals();
  const { width, height } = coverSize(activeCanvas(clip));
  const output = toOutputFrame(cover, timeline);
  const { block } = tools;
  return (
    <>
      <ClipStrip />
      <Body>
        {output === null
          ? 'The cover lies outside the clip: choose another frame.'
          : `The cover is the frame at ${formatTimecode(output, timeline.rate)}${clip.text?.cover ? '' : ', the first'}.`}
      </Body>
      <Soft>{`It is made ${width}×${height} (${ratioLabel({ width, height })}), and sent with a post.`}</Soft>
      <Button mode="outlined" onPress={() => player.showFrame(cover.frame, cover.master)}>
        Show the cover
      </Button>
      <Heading>Proposals</Heading>
      {proposals === null && <Soft>Frames are looked at once the look at the master is done…</Soft>}
      {proposals === 'failed' && <Soft>Proposals could not be made. Take any frame of the clip.</Soft>}
      <View style={styles.row} role="radiogroup" aria-label="Proposals for the cover">
        {(proposals === 'failed' ? [] : proposals)?.map(({ cover: proposed, picture }) => (
          <Pressable
            key={`${proposed.master}-${proposed.frame}`}
            role="radio"
            aria-label={`Frame ${proposed.frame} as the cover`}
            aria-checked={proposed.frame === cover.frame && proposed.master === cover.master}
            onPress={() => choose(proposed)}
            style={[styles.proposal, proposed.frame === cover.frame && styles.on]}
          >
            <Image
              source={{ uri: picture }}
              style={{ height: ROWS, width: (ROWS * width) / height }}
              aria-hidden
            />
          </Pressable>
        ))}
      </View>
      {block?.on === 'cover' && (
        <LookPanel
          style={block.style}
          size={block.fitted ? null : block.style.size}
          onStyle={tools.style}
          onFit={(fitted) => tools.place({ fitted }, true)}
        />
      )}
    </>
  );
}

interface Proposal {
  cover: Cover;
  picture: string;
}

/** Three frames as the cover would be; null until they were looked for. */
function useProposals(): Proposal[] | 'failed' | null {
  const job = useJob();
  const looks = useLooks(job.masters);
  const plan = useCanvasPlan();
  const timeline = useTimeline();
  const clip = useClip();
  const [found, setFound] = useState<Proposal[] | 'failed' | null>(null);
  const { cut, canvas } = clip;
  const { framings } = job.edit;
  useEffect(() => {
    let gone = false;
    const made: string[] = [];
    const look = async () => {
      const covers = await proposeCovers(job, plan, timeline);
      const proposals: Proposal[] = [];
      for (const cover of covers) {
        if (gone) return;
        const picture = URL.createObjectURL(await smallCover(job, cover, ROWS));
        made.push(picture);
        if (gone) return URL.revokeObjectURL(picture);
        proposals.push({ cover, picture });
      }
      if (!gone && covers.length > 0) setFound(proposals);
    };
    look().catch((error: unknown) => {
      console.error('proposals for the cover', error);
      if (!gone) setFound('failed');
    });
    return () => {
      gone = true;
      for (const picture of made) URL.revokeObjectURL(picture);
    };
    // What the pictures show counts, not all else of the job.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [cut, canvas, framings, looks]);
  return found;
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s },
  proposal: { padding: 2, borderWidth: 3, borderColor: colours.hairline, borderRadius: 4 },
  on: { borderColor: colours.woad },
});
