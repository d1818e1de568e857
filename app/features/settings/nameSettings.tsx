import { useState } from 'react';
import { View } from 'react-native';
import type { SharedSettings } from '@immeld/core/contract/settings';
import { formatNameList, parseNameList } from '@immeld/core/speech/names/nameList';
import { useChanges, useSharedSettings } from '../../api/queries';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

type Names = SharedSettings['names'];

/** Names and terms that the recogniser is to know. */
export function NameSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const show = useUndoBar();
  const [name, setName] = useState('');
  const [sounds, setSounds] = useState('');
  const names = data?.names ?? [];
  const keep = (next: Names, done?: () => void) => change.mutate({ names: next }, { onSuccess: () => done?.() });
  const add = () => {
    const [added] = parseNameList(`${name.replace(/[=#]/g, ' ')} = ${sounds}`);
    if (!added) return;
    keep([...names.filter((n) => n.text !== added.text), added], () => {
      setName('');
      setSounds('');
    });
  };
  const remove = (text: string) =>
    keep(
      names.filter((n) => n.text !== text),
      () => show(`${text} is off the list.`, () => keep(names)),
    );
  const bringIn = () => {
    const field = document.createElement('input');
    Object.assign(field, { type: 'file', accept: '.txt,text/plain' });
    field.onchange = async () => {
      const file = field.files?.[0];
      if (!file) return;
      const read = parseNameList(await file.text());
      const others = names.filter((n) => !read.some((r) => r.text === n.text));
      const isNew = read.filter((r) => !names.some((n) => n.text === r.text)).length;
      keep([...others, ...read], () => show(`${isNew} new, ${read.length - isNew} known before.`, () => keep(names)));
    };
    field.click();
  };
  const takeAlong = () => {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([formatNameList(names)], { type: 'text/plain;charset=utf-8' }));
    link.download = 'names and terms.txt';
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Names and terms</Title>
      <Type tone="faint">
        Listed here, they are heard rightly in what is transcribed from now on, and in old recordings when they are
        transcribed again.
      </Type>
      {change.error && <Failure error={change.error} />}
      {names.length > 0 && (
        <View role="list" aria-label="Names and terms">
          {names.map(({ text, soundsLike }) => (
            <View
              key={text}
              role="listitem"
              style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 12 }}
            >
              <View style={{ flexShrink: 1 }}>
                <Type>{text}</Type>
                {soundsLike.length > 0 && (
                  <Type size="tiny" tone="faint">
                    sounds like {soundsLike.join(', ')}
                  </Type>
                )}
              </View>
              <WordButton
                label="Remove"
                aria-label={`Remove ${text}`}
                onPress={() => remove(text)}
                style={{ marginRight: 0 }}
              />
            </View>
          ))}
        </View>
      )}
      <Field label="Name or term" value={name} onChangeText={setName} onSubmitEditing={add} maxLength={60} />
      <Field
        label="Sounds like (if it is not read as it is written)"
        value={sounds}
        onChangeText={setSounds}
        onSubmitEditing={add}
        maxLength={60}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Add to the list" isBold disabled={name.trim() === ''} onPress={add} />
        <WordButton label="Bring in a list" onPress={bringIn} />
        {names.length > 0 && <WordButton label="Take the list along" onPress={takeAlong} />}
      </View>
    </View>
  );
}
