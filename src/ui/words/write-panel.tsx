import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { MAX_TEXT, type TextBlock } from '@core/words/text-block';
import { TextArea } from '../parts/text-area';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { useTyping } from '../parts/use-typing';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { BandedForm } from './banded-form';
import { MissingNotice } from './missing-notice';
import type { WordsTools } from './use-words';

/** The words of the block that is worked on, and blocks as a whole. */
export function WritePanel({ tools }: { tools: WordsTools }) {
  const { block } = tools;
  const [banded, setBanded] = useState(false);
  return (
    <View style={styles.panel}>
      {block && !banded && <BlockWords tools={tools} block={block} />}
      {banded && <BandedForm onDone={() => setBanded(false)} />}
      {!block && !banded && <Soft>Add a block, or tap one on the picture.</Soft>}
      {!banded && (
        <ToolRow>
          <Tool icon="plus" label="Add a block" words="Add" onPress={() => tools.add()} />
          <Tool
            icon="table-row"
            label="Banded clip: words above and below the picture"
            words="Banded clip"
            onPress={() => setBanded(true)}
          />
          <Tool
            icon="content-copy"
            label="Copy the block"
            words="Copy"
            disabled={!block}
            onPress={tools.copy}
          />
          <Tool
            icon="arrange-bring-forward"
            label="Forward: draw the block later"
            words="Forward"
            disabled={!block}
            onPress={() => tools.order(1)}
          />
          <Tool
            icon="arrange-send-backward"
            label="Back: draw the block earlier"
            words="Back"
            disabled={!block}
            onPress={() => tools.order(-1)}
          />
          <Tool
            icon="delete-outline"
            label="Remove the block"
            words="Remove"
            hotkey="Delete"
            disabled={!block}
            onPress={tools.remove}
          />
        </ToolRow>
      )}
    </View>
  );
}

/** Text field of a block. */
export function BlockWords({ tools, block }: { tools: WordsTools; block: TextBlock }) {
  const typing = useTyping(block.id, block.text, {
    show: tools.showText,
    keep: (text) => tools.change('write', { text }, 'write'),
  });
  return (
    <>
      <TextArea
        label="Words of the block"
        value={typing.text}
        most={MAX_TEXT}
        onChange={typing.type}
        onBlur={typing.leave}
      />
      <MissingNotice text={typing.text} family={block.style.family} />
    </>
  );
}

const styles = StyleSheet.create({ panel: { gap: space.s } });
