import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Modal, Portal } from 'react-native-paper';
import { isInField } from './inField';
import { WordButton } from './press';
import { useColours } from './theme';
import { Title, Type } from './type';

const KEYS: { title: string; keys: [keys: string, what: string][] }[] = [
  {
    title: 'Everywhere',
    keys: [
      ['/', 'Find'],
      ['G, then D T S O', 'Day, Tray, Shelves, To-dos'],
      ['Shift Space', 'Record, then pause and go on'],
      ['Shift Enter', 'Finish the recording'],
      ['1 to 9', 'Mark the moment that is being recorded, by the number of the kind'],
      ['?', 'These keys'],
    ],
  },
  {
    title: 'In a recording',
    keys: [
      ['Space', 'Play or pause'],
      ['← →', 'Skip back and forward'],
      ['↑ ↓', 'Paragraph before and after'],
      ['R', 'Repeat the passage, or stop repeating'],
      ['D', 'Next doubtful word'],
      ['1 to 9', 'Mark the word or the selection, by the number of the kind'],
      ['L', 'Lift the sentence or the selection to a to-do'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo and redo corrections'],
    ],
  },
  {
    title: 'In the tray',
    keys: [
      ['↑ ↓', 'Card before and after'],
      ['Enter', 'File it as proposed'],
      ['Space', 'Choose it'],
      ['T', 'Another title'],
      ['Delete', 'Into the bin'],
    ],
  },
  {
    title: 'Finding',
    keys: [
      ['↑ ↓', 'Through what was found'],
      ['Enter', 'Open it and play there'],
    ],
  },
  {
    title: 'While correcting',
    keys: [
      ['Ctrl Enter', 'Play from the caret, or pause'],
      ['Ctrl Shift Enter', 'Back two seconds'],
      ['Ctrl ↓', 'Next doubtful word'],
      ['Alt 1 to 9', 'Put the word that is offered'],
      ['Enter', 'Part the passage'],
      ['Backspace at the beginning', 'Join it to the one before'],
      ['Escape', 'Leave; what was typed is kept'],
    ],
  },
];

/** All keys, shown by `?`. */
export function KeysPanel() {
  const colours = useColours();
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event)) return;
      if (event.key === '?') setOpen((open) => !open);
      if (event.key === 'Escape') setOpen(false);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
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
        <View role="dialog" aria-label="Keys" style={{ gap: 14 }}>
          <Title>Keys</Title>
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
