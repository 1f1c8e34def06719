import { usePlayer } from '@state/player';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import type { CutTools } from './use-cut';

/** Tools on the range that is worked on. */
export function CutTray({ tools }: { tools: CutTools }) {
  const { cut, index } = tools;
  // Only between two ranges of one master can frames change sides.
  const rolls = index > 0 && cut[index - 1]?.master === cut[index]?.master;
  const shownFrame = () => usePlayer.getState().frame;
  return (
    <ToolRow>
      <Tool
        icon="ray-start-arrow"
        label="Start here"
        hotkey="A"
        onPress={() => tools.trim('in', shownFrame(), true)}
      />
      <Tool
        icon="ray-end-arrow"
        label="End here"
        hotkey="B"
        onPress={() => tools.trim('out', shownFrame(), true)}
      />
      <Tool icon="content-cut" label="Split here" words="Split" hotkey="C" onPress={tools.split} />
      <Tool
        icon="close-box-outline"
        label="Remove this range"
        words="Remove"
        hotkey="Delete"
        disabled={cut.length < 2}
        onPress={tools.remove}
      />
      <Tool
        icon="arrow-left-bold-outline"
        label="Move this range earlier"
        words="Earlier"
        hotkey="Shift+Left"
        disabled={index === 0}
        onPress={() => tools.move(index - 1)}
      />
      <Tool
        icon="arrow-right-bold-outline"
        label="Move this range later"
        words="Later"
        hotkey="Shift+Right"
        disabled={index === cut.length - 1}
        onPress={() => tools.move(index + 1)}
      />
      <Tool
        icon="chevron-left"
        label="Slip this range one frame back"
        words="Slip −"
        hotkey=","
        onPress={() => tools.slip(-1)}
      />
      <Tool
        icon="chevron-right"
        label="Slip this range one frame on"
        words="Slip +"
        hotkey="."
        onPress={() => tools.slip(1)}
      />
      <Tool
        icon="arrow-collapse-left"
        label="Move the cut before this range one frame earlier"
        words="Cut −"
        disabled={!rolls}
        onPress={() => tools.roll(-1)}
      />
      <Tool
        icon="arrow-collapse-right"
        label="Move the cut before this range one frame later"
        words="Cut +"
        disabled={!rolls}
        onPress={() => tools.roll(1)}
      />
    </ToolRow>
  );
}
