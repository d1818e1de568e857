import type { Meaning } from '@immeld/core/contract/meanings';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useGlossary } from '../../api/glossary';
import { useMeaning } from '../../api/queries';
import { LineEntry } from '../../ui/lineEntry';
import { Failure, Loading } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

const SOURCE = 'WordNet';
const MAX_HEIGHT = 260;
const MAX_CONTEXT = 1000;

type MeaningProps = {
  word: string;
  /** What is said around it. */
  context: string;
  /** Puts a text into the margin beside the word. */
  onKeep: (text: string) => void;
  onClose: () => void;
};

/** What a word means: by the person's own glossary first, then the meaning that the words around it speak for, then the others. */
export function MeaningPanel({ word, context, onKeep, onClose }: MeaningProps) {
  const { data, error, refetch } = useMeaning(word, context.slice(0, MAX_CONTEXT));
  if (error) return <Failure error={error} onRetry={() => void refetch()} />;
  if (!data) return <Loading label="Looking it up" />;
  return <Found meaning={data} onKeep={onKeep} onClose={onClose} />;
}

function Found({ meaning, onKeep, onClose }: { meaning: Meaning } & Pick<MeaningProps, 'onKeep' | 'onClose'>) {
  const { word, own, senses, likeliest } = meaning;
  const [showsAll, setShowsAll] = useState(false);
  const [entry, setEntry] = useClosable<string | null>(null);
  const { put } = useGlossary();
  const first = senses[likeliest];
  const shown = showsAll ? senses : first ? [first] : [];
  return (
    <View role="group" aria-label={`Meaning of ${word}`} style={{ padding: 8, gap: 6 }}>
      <Type isBold>{word}</Type>
      <ScrollView style={{ maxHeight: MAX_HEIGHT }} contentContainerStyle={{ gap: 8 }}>
        {own !== null && <Entry text={own} detail="from your glossary" onKeep={() => onKeep(`${word}: ${own}`)} />}
        {shown.map((sense) => (
          <Entry
            key={`${sense.partOfSpeech} ${sense.meaning}`}
            text={sense.meaning}
            detail={[sense.partOfSpeech, ...sense.examples.slice(0, 1).map((e) => `“${e}”`), SOURCE].join(' · ')}
            onKeep={() => onKeep(`${word}: ${sense.meaning} (${SOURCE})`)}
          />
        ))}
        {own === null && senses.length === 0 && (
          <Type tone="faint">The dictionary does not have this. You can add it to your own glossary.</Type>
        )}
      </ScrollView>
      {entry !== null && (
        <LineEntry
          label={`What ${word} means`}
          action="Save"
          value={entry}
          onChange={setEntry}
          onSubmit={() => {
            put(word, entry);
            setEntry(null);
          }}
          maxLength={500}
          autoFocus
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {senses.length > 1 && !showsAll && (
          <WordButton
            label={senses.length === 2 ? 'Show the other meaning' : `Show ${senses.length - 1} other meanings`}
            onPress={() => setShowsAll(true)}
          />
        )}
        {entry === null && (
          <WordButton
            label={own === null ? 'Add to my glossary' : 'Change in my glossary'}
            onPress={() => setEntry(own ?? first?.meaning ?? '')}
          />
        )}
        <WordButton label="Close" onPress={onClose} />
      </View>
    </View>
  );
}

function Entry({ text, detail, onKeep }: { text: string; detail: string; onKeep: () => void }) {
  return (
    <View>
      <Type size="small">{text}</Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <Type size="tiny" tone="faint" style={{ flexShrink: 1 }}>
          {detail}
        </Type>
        <WordButton label="Put in the margin" onPress={onKeep} />
      </View>
    </View>
  );
}
