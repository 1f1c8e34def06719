import { ScrollView, StyleSheet, View } from 'react-native';
import { Button, Dialog } from 'react-native-paper';
import { space } from '../theme/tokens';
import { ModalDialog } from '../parts/modal-dialog';
import { Body, Figures } from '../parts/words';

const KEYS: readonly [keys: string, does: string][] = [
  ['Space', 'Play or pause'],
  ['Q  W', 'Back, forward one frame'],
  ['Shift Q  Shift W', 'Back, forward ten frames'],
  ['A  B', 'The range starts here, ends here'],
  ['C', 'Split the range here'],
  ['Delete', 'Remove the range'],
  [',  .', 'Slip the range by a frame'],
  ['Arrows', 'Move the window by one pixel'],
  ['Shift arrows', 'Move the window by ten pixels, or the range to another place'],
  ['+  −', 'Zoom in, out'],
  ['Page Up  Page Down', 'The shot before, the next shot'],
  ['M', 'Change the whole shot, or from this frame on'],
  ['D', 'The next doubtful moment of what is followed'],
  ['H', 'Hide the windows on the master'],
  ['O  Esc', 'On the whole canvas: overlay zones, back'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['?', 'This list'],
];

/** The keys, in a list. */
export function KeyList({ onClose }: { onClose: () => void }) {
  return (
    <ModalDialog title="Keys" onClose={onClose}>
      <Dialog.ScrollArea>
        <ScrollView>
          {KEYS.map(([keys, does]) => (
            <View key={keys} style={styles.row}>
              <Figures style={styles.keys}>{keys}</Figures>
              <Body style={styles.does}>{does}</Body>
            </View>
          ))}
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Button onPress={onClose}>Close</Button>
      </Dialog.Actions>
    </ModalDialog>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m, paddingVertical: space.s },
  keys: { width: 150 },
  does: { flex: 1 },
});
