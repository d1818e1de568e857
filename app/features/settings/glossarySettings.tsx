import { useState } from 'react';
import { View } from 'react-native';
import { useGlossary } from '../../api/glossary';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { RemovableList } from '../../ui/removableList';
import { Title, Type } from '../../ui/type';

/** Terms in the person's own words: they come before the dictionary where a meaning is looked up. */
export function GlossarySettings() {
  const { glossary, error, put, remove } = useGlossary();
  const [term, setTerm] = useState('');
  const [meaning, setMeaning] = useState('');
  const add = () =>
    put(term, meaning, () => {
      setTerm('');
      setMeaning('');
    });
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>My glossary</Title>
      <Type tone="faint">
        Select a word in a recording and press Meaning. Your own entries come first, then the dictionary.
      </Type>
      {error && <Failure error={error} />}
      <RemovableList
        label="My glossary"
        entries={glossary.map(({ term: key, meaning: detail }) => ({ key, text: key, detail }))}
        onRemove={remove}
      />
      <Field label="Term" value={term} onChangeText={setTerm} maxLength={80} />
      <Field label="What it means" value={meaning} onChangeText={setMeaning} maxLength={500} multiline />
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Add term" isBold disabled={!term.trim() || !meaning.trim()} onPress={add} />
      </View>
    </View>
  );
}
