import type { ExportItem } from '@immeld/core/contract/exportEndpoints';
import { SHORTEST_LINK_PASSWORD } from '@immeld/core/contract/shareLinks';
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
  { key: 'withSound', label: 'The sound', hint: 'the words follow it' },
  { key: 'withSlips', label: 'The margin', hint: 'marks, slips, pictures, comments' },
  { key: 'withWriteUps', label: 'Write-ups and to-dos', hint: 'that you have accepted' },
  { key: 'withProposals', label: 'Include proposals', hint: 'marked as proposed' },
  { key: 'isListed', label: 'Search engines may list it' },
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
      { onSuccess: () => show('The link is made. It stands at the top.') },
    );
  return (
    <View role="group" aria-label="A new link" style={{ gap: 8, paddingBottom: 20 }}>
      <Title level={2}>A new link</Title>
      <Type tone="faint">
        Whoever has the address reads {item.kind === 'note' ? 'this note' : 'the words'} without an account, until you
        stop it.
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
        label={`Password, at least ${SHORTEST_LINK_PASSWORD} characters; none if empty`}
        value={password}
        onChangeText={setPassword}
        autoComplete="off"
        autoCapitalize="none"
        maxLength={200}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 16, alignItems: 'flex-end' }}>
        <DayField label="Last day" day={lastDay} onChange={setLastDay} mayBeEmpty />
        <View style={{ width: 170 }}>
          <Field
            label="Openings at most"
            value={most}
            onChangeText={(text) => setMost(text.replace(/\D/g, ''))}
            inputMode="numeric"
            maxLength={6}
          />
        </View>
      </View>
      <View style={{ flexDirection: 'row', paddingTop: 6 }}>
        <FrameButton label="Make the link" isMain disabled={make.isPending} onPress={create} />
      </View>
      {make.error && <Failure error={make.error} />}
    </View>
  );
}
