import { RECORDING_KINDS, type RecordingKind, type SharedSettings } from '@immeld/core/contract/settings';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings, useShelves } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { inOrder } from '../shelves/folderTree';
import { useClosable } from '../../ui/useClosable';

type Usual = SharedSettings['usualWriteUps'][number];

const KIND_NAMES: Record<RecordingKind, { label: string; hint: string }> = {
  appointment: { label: 'Appointments', hint: 'recordings made during a calendar appointment' },
  conversation: { label: 'Conversations', hint: 'two or more speakers' },
  'long talk': { label: 'Long talks', hint: 'one speaker, 15 minutes or more' },
  memo: { label: 'Memos', hint: 'one speaker, under 15 minutes' },
};

/** Of which recordings a write-up by this template is made without being asked for: a button in a row, its choices below. */
export function UsualFor({ templateId, name }: { templateId: string; name: string }) {
  const [isOpen, setOpen] = useClosable(false);
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
        label={names.length ? `Made automatically for ${names.filter(Boolean).join(', ')}` : 'Make automatically'}
        aria-label={`Make ${name} automatically`}
        aria-expanded={isOpen}
        onPress={() => setOpen(!isOpen)}
      />
      {isOpen && (
        <View role="group" aria-label={`Make ${name} automatically for`} style={{ width: '100%' }}>
          <Type size="tiny" tone="faint">
            Suggested in pencil when a recording is transcribed or filed in a folder. The choice for a folder overrides
            the choice for a kind of recording.
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
