import type { ExportItem } from '@immeld/core/contract/exportEndpoints';
import { MIN_LINK_PASSWORD_LENGTH } from '@immeld/core/contract/shareLinks';
import { useState } from 'react';
import { View } from 'react-native';
import { useShareLinkChanges } from '../../api/shareLinks';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/dayField';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { FrameButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

const OPTIONS = [
  { key: 'withSound', label: 'Audio', hint: 'the text follows along' },
  { key: 'withSlips', label: 'Margin', hint: 'marks, slips, pictures, comments' },
  { key: 'withWriteUps', label: 'Write-ups and to-dos', hint: 'that you have accepted' },
  { key: 'withProposals', label: 'Include suggestions', hint: 'marked as suggested' },
  { key: 'isListed', label: 'Allow search engines to list it' },
] as const;

/** What a new link shows, and to whom it opens. */
export function NewLink({ item }: { item: ExportItem }) {
  const { make } = useShareLinkChanges();
  const [shown, setShown] = useState({
    ...{ withSound: false, withSlips: false, withWriteUps: false, withProposals: false, isListed: false },
  });
  const [password, setPassword] = useState('');
  const [lastDay, setLastDay] = useState('');
  const [most, setMost] = useState('');
  const offered = OPTIONS.filter(
    ({ key }) => key === 'isListed' || (item.kind === 'recording' && (key !== 'withProposals' || shown.withWriteUps)),
  );
  const show = useUndoBar();
  const create = () =>
    make.mutate(
      {
        ...{ item, ...shown, password: password || null, lastDay: lastDay || null },
        mostOpenings: most ? Number(most) : null,
      },
      { onSuccess: () => show('Link created. It is first in the list.') },
    );
  return (
    <View role="group" aria-label="New link" style={{ gap: 8, paddingBottom: 20 }}>
      <Title level={2}>New link</Title>
      <Type tone="faint">
        Anyone with the address can read {item.kind === 'note' ? 'this note' : 'the text'} without an account until you
        turn the link off.
      </Type>
      {offered.map(({ key, label, ...rest }) => (
        <Choice
          key={key}
          role="switch"
          label={label}
          {...('hint' in rest ? { hint: rest.hint } : {})}
          isOn={shown[key]}
          onPress={() => setShown({ ...shown, [key]: !shown[key] })}
        />
      ))}
      <Field
        label={`Password (optional, at least ${MIN_LINK_PASSWORD_LENGTH} characters)`}
        value={password}
        onChangeText={setPassword}
        autoComplete="off"
        autoCapitalize="none"
        maxLength={200}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 16, alignItems: 'flex-end' }}>
        <DayField label="Works until" day={lastDay} onChange={setLastDay} mayBeEmpty />
        <View style={{ width: 170 }}>
          <Field
            label="Maximum openings"
            value={most}
            onChangeText={(text) => setMost(text.replace(/\D/g, ''))}
            inputMode="numeric"
            maxLength={6}
          />
        </View>
      </View>
      <View style={{ flexDirection: 'row', paddingTop: 6 }}>
        <FrameButton label="Create link" isMain disabled={make.isPending} onPress={create} />
      </View>
      {make.error && <Failure error={make.error} />}
    </View>
  );
}
