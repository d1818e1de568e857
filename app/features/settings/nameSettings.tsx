import { useState } from 'react';
import { View } from 'react-native';
import type { SharedSettings } from '@immeld/core/contract/settings';
import { formatNameList, parseNameList } from '@immeld/core/speech/names/nameList';
import { useChanges } from '../../api/changes';
import { useSharedSettings, useShelves } from '../../api/queries';
import { OneOf } from '../../ui/oneOf';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { RemovableList } from '../../ui/removableList';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

type Names = SharedSettings['names'];

/** Names of no project are expected everywhere. */
const ANY = 'all recordings';

/** Names and terms that the recogniser is to know. */
export function NameSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const show = useUndoBar();
  const [name, setName] = useState('');
  const [sounds, setSounds] = useState('');
  const [project, setProject] = useState(ANY);
  const { data: shelves } = useShelves();
  const projects = shelves?.projects.map((p) => p.name) ?? [];
  const names = data?.names ?? [];
  const keep = (next: Names, done?: () => void) => change.mutate({ names: next }, { onSuccess: () => done?.() });
  const add = () => {
    const of = project === ANY ? '' : ` @ ${project}`;
    const [added] = parseNameList(`${name.replace(/[=#@]/g, ' ')} = ${sounds.replace(/@/g, ' ')}${of}`);
    if (!added) return;
    keep([...names.filter((n) => n.text !== added.text), added], () => {
      // The next one may be typed already.
      setName((now) => (now === name ? '' : now));
      setSounds((now) => (now === sounds ? '' : now));
    });
  };
  const remove = (text: string) =>
    keep(
      names.filter((n) => n.text !== text),
      () => show(`${text} removed.`, () => keep(names)),
    );
  const bringIn = async () => {
    const file = await pickFile('.txt,text/plain');
    if (!file) return;
    const read = parseNameList(await file.text());
    const others = names.filter((n) => !read.some((r) => r.text === n.text));
    const isNew = read.filter((r) => !names.some((n) => n.text === r.text)).length;
    keep([...others, ...read], () => show(`${isNew} added, ${read.length - isNew} already listed.`, () => keep(names)));
  };
  const takeAlong = () =>
    saveFile(new Blob([formatNameList(names)], { type: 'text/plain;charset=utf-8' }), 'names and terms.txt');
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Names and terms</Title>
      <Type tone="faint">
        New recordings recognise these words correctly. Older recordings do so once you transcribe them again.
      </Type>
      {change.error && <Failure error={change.error} />}
      <RemovableList
        label="Names and terms"
        entries={names.map(({ text, soundsLike, project: of }) => ({
          ...{ key: text, text },
          detail: [soundsLike.length ? `sounds like ${soundsLike.join(', ')}` : null, of ? `only in ${of}` : null]
            .filter(Boolean)
            .join(' · '),
        }))}
        onRemove={remove}
      />
      <Field label="Name or term" value={name} onChangeText={setName} onSubmitEditing={add} maxLength={60} />
      <Field
        label="Sounds like (if spoken differently from how it is written)"
        value={sounds}
        onChangeText={setSounds}
        onSubmitEditing={add}
        maxLength={60}
      />
      {projects.length > 0 && (
        <OneOf
          label="Used in"
          options={[ANY, ...projects]}
          nameOf={(option) => option}
          chosen={project}
          onChoose={setProject}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Add name" isBold disabled={name.trim() === ''} onPress={add} />
        <WordButton label="Import a list" onPress={bringIn} />
        {names.length > 0 && <WordButton label="Export the list" onPress={takeAlong} />}
      </View>
    </View>
  );
}
