import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { Field } from '../../ui/field';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** The words that were read in a picture, in pencil: they are for finding, and can be put right. */
export function PictureWords({ id, words }: { id: string; words: string }) {
  const { slip: change } = useChanges();
  const [isOpen, setOpen] = useClosable(false);
  const [text, setText] = useState(words);
  if (isOpen)
    return (
      <View style={{ gap: 6, marginTop: 8 }}>
        <Field label="Words in the picture" multiline value={text} onChangeText={setText} maxLength={5000} autoFocus />
        <View style={{ flexDirection: 'row' }}>
          <WordButton
            label="Save"
            isBold
            onPress={() => {
              change.mutate({ id, change: { words: text.trim() } });
              setOpen(false);
            }}
          />
          <WordButton label="Cancel" onPress={() => setOpen(false)} />
        </View>
      </View>
    );
  return (
    <PencilBox style={{ marginTop: 8 }}>
      <Type size="tiny" tone="faint">
        Read in the picture
      </Type>
      <Type size="small" numberOfLines={4}>
        {words || 'No words'}
      </Type>
      <View style={{ flexDirection: 'row' }}>
        <WordButton
          label="Correct the words"
          onPress={() => {
            setText(words);
            setOpen(true);
          }}
        />
      </View>
    </PencilBox>
  );
}
