import { RECORDING_KINDS, type RecordingKind, type SharedSettings } from '@immeld/core/contract/settings';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings, useShelves } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { inOrder } from '../shelves/folderTree';

type Usual = SharedSettings['usualWriteUps'][number];

const KIND_NAMES: Record<RecordingKind, { label: string; hint: string }> = {
  appointment: { label: 'Appointments', hint: 'recordings that belong to one in the calendar' },
  conversation: { label: 'Conversations', hint: 'two voices or more' },
  'long talk': { label: 'Long talks', hint: 'one voice, a quarter of an hour or more' },
  memo: { label: 'Memos', hint: 'one voice, shorter' },
};

/** Of which recordings a write-up by this template is made without being asked for: a button in a row, its choices below. */
export function UsualFor({ templateId, name }: { templateId: string; name: string }) {
  const [isOpen, setOpen] = useState(false);
  const { data: shelves } = useShelves();
  const usual = useSharedSettings().data?.usualWriteUps ?? [];
  const { settings } = useChanges();
  const mine = usual.filter((u) => u.templateId === templateId);
  const folders = inOrder(shelves?.folders ?? []);
  const isThis = (u: Usual, of: Pick<Usual, 'folderId' | 'kind'>) => u.folderId === of.folderId && u.kind === of.kind;
  /** A folder or kind has one usual write-up: the last that was chosen. */
  const toggle = (of: Pick<Usual, 'folderId' | 'kind'>) =>
    settings.mutate({
      usualWriteUps: [
        ...usual.filter((u) => !isThis(u, of)),
        ...(mine.some((u) => isThis(u, of)) ? [] : [{ ...of, templateId }]),
      ],
    });
  const names = mine.map((u) =>
    u.kind
      ? KIND_NAMES[u.kind].label.toLowerCase()
      : folders.find(({ folder }) => folder.id === u.folderId)?.folder.name,
  );
  const option = (label: string, hint: string, of: Pick<Usual, 'folderId' | 'kind'>) => (
    <Choice
      key={label}
      role="switch"
      label={label}
      hint={hint}
      isOn={mine.some((u) => isThis(u, of))}
      onPress={() => toggle(of)}
    />
  );
  return (
    <>
      <WordButton
        label={names.length ? `Made by itself of ${names.filter(Boolean).join(', ')}` : 'Make it by itself'}
        aria-label={`Make ${name} by itself`}
        aria-expanded={isOpen}
        onPress={() => setOpen(!isOpen)}
      />
      {isOpen && (
        <View role="group" aria-label={`${name} is made by itself of`} style={{ width: '100%' }}>
          <Type size="tiny" tone="faint">
            In pencil, as soon as a recording is transcribed, or put into a folder. A folder counts before a kind.
          </Type>
          {RECORDING_KINDS.map((kind) =>
            option(KIND_NAMES[kind].label, KIND_NAMES[kind].hint, { kind, folderId: null }),
          )}
          {folders.map(({ folder, path }) =>
            option(folder.name, ['folder', ...path].join(' / '), { kind: null, folderId: folder.id }),
          )}
          {settings.error && <Failure error={settings.error} />}
        </View>
      )}
    </>
  );
}
