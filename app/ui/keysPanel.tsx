import { useEffect } from 'react';
import { View } from 'react-native';
import { Modal, Portal } from 'react-native-paper';
import { isInField } from './inField';
import { WordButton } from './press';
import { useColours } from './theme';
import { Title, Type } from './type';
import { useClosable } from './useClosable';

const KEYS: { title: string; keys: [keys: string, what: string][] }[] = [
  {
    title: 'Everywhere',
    keys: [
      ['/', 'Find'],
      ['G, then D T S O', 'Day, Tray, Shelves, To-dos'],
      ['Shift Space', 'Record, then pause and resume'],
      ['Shift Enter', 'Finish the recording'],
      ['1 to 9', 'Mark this moment while recording, by the number of the mark'],
      ['N', 'Next slide while recording'],
      ['?', 'Show all keys'],
    ],
  },
  {
    title: 'In a recording',
    keys: [
      ['Space', 'Play or pause'],
      ['← →', 'Skip back and forward'],
      ['↑ ↓', 'Previous or next paragraph'],
      ['R', 'Repeat the passage, or stop repeating'],
      ['D, Shift D', 'Next or previous doubtful word; Enter confirms it, Backspace types over it'],
      ['1 to 9', 'Mark the word or the selection, by the number of the mark'],
      ['L', 'Make a to-do from the sentence or the selection'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo and redo corrections'],
    ],
  },
  {
    title: 'In a sitting',
    keys: [
      ['Space', 'Play the passage, or pause'],
      ['Enter, ← →', 'Next, back and next'],
      ['1 to 4', 'Say how well you knew the answer'],
    ],
  },
  {
    title: 'In the tray',
    keys: [
      ['↑ ↓', 'Previous or next card'],
      ['Enter', 'File as suggested'],
      ['Space', 'Select'],
      ['T', 'Another title'],
      ['Delete', 'Move to the bin'],
    ],
  },
  {
    title: 'Searching',
    keys: [
      ['↑ ↓', 'Move through the results'],
      ['Enter', 'Open the result and play from there'],
    ],
  },
  {
    title: 'Editing text',
    keys: [
      ['Ctrl Enter', 'Play from the cursor, or pause'],
      ['Ctrl Shift Enter', 'Go back two seconds'],
      ['Ctrl ↓', 'Next doubtful word'],
      ['Alt 1 to 9', 'Insert the suggested word'],
      ['Enter', 'Split the passage'],
      ['Backspace at the beginning', 'Merge with the previous passage'],
      ['Escape', 'Stop editing; your text is saved'],
    ],
  },
];

/** All keys, shown by `?`. */
export function KeysPanel() {
  const colours = useColours();
  const [isOpen, setOpen] = useClosable(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event)) return;
      if (event.key === '?') setOpen((open) => !open);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [setOpen]);
  return (
    <Portal>
      <Modal
        visible={isOpen}
        onDismiss={() => setOpen(false)}
        contentContainerStyle={{
          ...{ alignSelf: 'center', width: '92%', maxWidth: 1080, maxHeight: '96%', padding: 20, borderRadius: 4 },
          ...{ backgroundColor: colours.sheet, borderWidth: 1, borderColor: colours.ink, overflow: 'scroll' },
        }}
      >
        <View role="dialog" aria-label="Keyboard shortcuts" style={{ gap: 14 }}>
          <Title>Keyboard shortcuts</Title>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 30, rowGap: 12 }}>
            {KEYS.map(({ title, keys }) => (
              <View key={title} style={{ flexGrow: 1, flexBasis: 290, gap: 3 }}>
                <Title level={2}>{title}</Title>
                {keys.map(([key, what]) => (
                  <View key={key} style={{ flexDirection: 'row', gap: 12 }}>
                    <Type size="small" isBold style={{ width: 120 }}>
                      {key}
                    </Type>
                    <Type size="small" style={{ flex: 1 }}>
                      {what}
                    </Type>
                  </View>
                ))}
              </View>
            ))}
          </View>
          <WordButton label="Close" onPress={() => setOpen(false)} />
        </View>
      </Modal>
    </Portal>
  );
}
