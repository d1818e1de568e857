import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { FORMATS, FORMAT_TYPES } from '@immeld/core/formats/formats';
import { useRouter } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { ownZone, useAppointments, useChanges, useShelves } from '../../api/queries';
import { lengthName, sizeName, whenSaid } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { Choice } from '../../ui/choice';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { Field } from '../../ui/field';
import { appointmentTimes } from '../day/appointmentBracket';
import { Versions } from './versions';
import { LineEntry } from '../../ui/lineEntry';

/** Title, folder and tags with what is proposed; the text as a file; where the recording comes from. */
export function About({ recording }: { recording: Recording }) {
  const changes = useChanges();
  const { recording: change, recognise } = changes;
  const error = change.error ?? recognise.error ?? changes.newFolder.error;
  const consents = recording.slips.filter((s) => s.kind === 'consent');
  const [withConsent, setWithConsent] = useState(false);
  const router = useRouter();
  const show = useUndoBar();
  const set = (part: Parameters<typeof change.mutate>[0]['change']) =>
    change.mutate({ id: recording.id, change: part });
  const bin = () => {
    set({ isBinned: true });
    show('In the bin for 30 days.', () => set({ isBinned: false }));
    router.navigate('/tray');
  };
  return (
    <View style={{ gap: 18, paddingTop: 14, paddingBottom: 24 }}>
      {error && <Failure error={error} />}
      <TitleField recording={recording} onSet={set} />
      <FolderField recording={recording} onSet={set} />
      <TagField recording={recording} onSet={set} />
      <AppointmentField recording={recording} onSet={set} />
      {!recording.isFiled && (
        <WordButton
          label="File it"
          isBold
          onPress={() => {
            set({ isFiled: true });
            show('Filed.', () => set({ isFiled: false }));
          }}
        />
      )}
      <View>
        <Title level={2}>Take along</Title>
        {FORMATS.map((format) => (
          <Press
            key={format}
            role="link"
            label={FORMAT_TYPES[format].label}
            disabled={recording.passages.length === 0}
            onPress={() =>
              download(
                addressOf('exportRecording', {
                  params: { id: recording.id, format },
                  query: withConsent ? { consent: 'true' } : {},
                }),
              )
            }
          >
            <Type tone="petrol" style={{ textDecorationLine: 'underline' }}>
              {FORMAT_TYPES[format].label}
            </Type>
          </Press>
        ))}
        {consents.length > 0 && (
          <Choice
            role="switch"
            label="With the consent note"
            hint="In plain text, WebVTT and JSON"
            isOn={withConsent}
            onPress={() => setWithConsent(!withConsent)}
          />
        )}
        {recording.passages.length === 0 && (
          <Type size="tiny" tone="faint">
            There is no text to take along yet.
          </Type>
        )}
      </View>
      <View>
        <Title level={2}>About this recording</Title>
        <Fact name="Recorded">{whenSaid(recording.startedAt)}</Fact>
        {recording.isRecovered && <Fact name="Recovered">It was cut off, and came back by itself.</Fact>}
        {consents.map((s) => (
          <Fact key={s.id} name="Consent">{`${s.text}, at ${clockTime(s.startMs)}`}</Fact>
        ))}
        {recording.place && <Fact name="Place">{recording.place}</Fact>}
        {recording.durationMs !== null && <Fact name="Length">{lengthName(recording.durationMs)}</Fact>}
        <Fact name="File">{`${recording.fileName}, ${sizeName(recording.sizeBytes)}`}</Fact>
        {recording.model && <Fact name="Transcribed">on this machine, model {recording.model}</Fact>}
      </View>
      <Versions recording={recording} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {recording.state === 'ready' && (
          <WordButton label="Transcribe again" onPress={() => recognise.mutate(recording.id)} />
        )}
        {recording.isBinned ? (
          <WordButton label="Take out of the bin" isBold onPress={() => set({ isBinned: false })} />
        ) : (
          <WordButton label="Put into the bin" onPress={bin} />
        )}
      </View>
    </View>
  );
}

function download(address: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = '';
  document.body.append(link);
  link.click();
  link.remove();
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', gap: 12, paddingVertical: 3 }}>
      <Type tone="faint" style={{ width: 96 }}>
        {name}
      </Type>
      <Type style={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' } as object}>{children}</Type>
    </View>
  );
}

type FieldProps = {
  recording: Recording;
  onSet: ReturnType<typeof useChanges>['recording']['mutate'] extends (v: infer V, ...rest: never[]) => void
    ? (part: V extends { change: infer C } ? C : never) => void
    : never;
};

/** The appointment a recording belongs to; a wrong one is changed with one tap. */
function AppointmentField({ recording, onSet }: FieldProps) {
  const [isOpen, setOpen] = useState(false);
  const { data } = useAppointments(recording.startedAt.slice(0, 10), true);
  const { appointment } = recording;
  const others = data?.items.filter((a) => a.id !== appointment?.id && !a.isWholeDay) ?? [];
  if (!appointment && others.length === 0) return null;
  const choose = (appointmentId: string | null) => {
    onSet({ appointmentId, zone: ownZone() });
    setOpen(false);
  };
  return (
    <View>
      <Title level={2}>Appointment</Title>
      {appointment ? (
        <>
          <Type>{appointment.title}</Type>
          <Type size="tiny" tone="faint">
            {[appointmentTimes(appointment), appointment.place, appointment.people.join(', ')]
              .filter(Boolean)
              .join(' · ')}
          </Type>
        </>
      ) : (
        <Type tone="faint">It belongs to none.</Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {appointment && <WordButton label="Not this one" onPress={() => choose(null)} />}
        {!isOpen && others.length > 0 && <WordButton label="Choose another" onPress={() => setOpen(true)} />}
        {isOpen &&
          others.map((a) => (
            <WordButton key={a.id} label={`${a.title}, ${appointmentTimes(a)}`} onPress={() => choose(a.id)} />
          ))}
      </View>
    </View>
  );
}

function Proposal({
  label,
  value,
  onAccept,
  onDrop,
}: {
  label: string;
  value: string;
  onAccept: () => void;
  onDrop: () => void;
}) {
  return (
    <PencilBox style={{ marginTop: 6 }}>
      <Type size="tiny" tone="faint">
        {label}
      </Type>
      <Type size="body" face="text">
        {value}
      </Type>
      <View style={{ flexDirection: 'row' }}>
        <WordButton label={`Accept ${label.toLowerCase()}`} isBold onPress={onAccept} />
        <WordButton label={`Drop ${label.toLowerCase()}`} onPress={onDrop} />
      </View>
    </PencilBox>
  );
}

function TitleField({ recording, onSet }: FieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { title, suggestion } = recording;
  const save = () => {
    if (typed !== null) onSet({ title: typed.trim() || null });
    setTyped(null);
  };
  return (
    <View>
      <Field
        label="Title"
        value={typed ?? title ?? ''}
        placeholder={recording.fileName}
        onChangeText={setTyped}
        onBlur={save}
        onSubmitEditing={save}
        maxLength={200}
      />
      {!title && suggestion.title && (
        <Proposal
          label="Title"
          value={suggestion.title}
          onAccept={() => onSet({ title: suggestion.title })}
          onDrop={() => onSet({ drop: ['title'] })}
        />
      )}
    </View>
  );
}

function FolderField({ recording, onSet }: FieldProps) {
  const colours = useColours();
  const { data } = useShelves();
  const { newFolder } = useChanges();
  const [name, setName] = useState('');
  const folders = data?.folders ?? [];
  const proposed = folders.find((f) => f.id === recording.suggestion.folderId);
  const make = () => {
    if (name.trim()) {
      newFolder.mutate(
        { name: name.trim() },
        {
          onSuccess: (folder) => {
            onSet({ folderId: folder.id });
            setName('');
          },
        },
      );
    }
  };
  return (
    <View>
      <Title level={2}>Folder</Title>
      {!recording.folderId && proposed && (
        <Proposal
          label="Folder"
          value={proposed.name}
          onAccept={() => onSet({ folderId: proposed.id })}
          onDrop={() => onSet({ drop: ['folder'] })}
        />
      )}
      <View
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 6 }}
        role="radiogroup"
        aria-label="Folder"
      >
        {folders.map((folder) => {
          const isOn = folder.id === recording.folderId;
          return (
            <Press
              key={folder.id}
              role="radio"
              aria-checked={isOn}
              label={folder.name}
              onPress={() => onSet({ folderId: isOn ? null : folder.id })}
              style={{
                borderWidth: 1,
                borderRadius: 4,
                borderColor: isOn ? colours.ink : colours.rule,
                borderBottomWidth: 3,
                borderBottomColor: colours[folder.tint],
                paddingHorizontal: 12,
                backgroundColor: isOn ? colours.lit : colours.sheet,
              }}
            >
              <Type>{folder.name}</Type>
            </Press>
          );
        })}
      </View>
      <LineEntry label="New folder" action="Make it" value={name} onChange={setName} onSubmit={make} maxLength={80} />
    </View>
  );
}

function TagField({ recording, onSet }: FieldProps) {
  const colours = useColours();
  const [typed, setTyped] = useState('');
  const proposed = recording.suggestion.tags.filter((t) => !recording.tags.includes(t));
  const add = (names: string[]) => onSet({ tags: [...new Set([...recording.tags, ...names])] });
  const save = () => {
    if (typed.trim()) add([typed.trim()]);
    setTyped('');
  };
  return (
    <View>
      <Title level={2}>Tags</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 6 }}>
        {recording.tags.map((tag) => (
          <Press
            key={tag}
            label={`Take the tag ${tag} away`}
            onPress={() => onSet({ tags: recording.tags.filter((t) => t !== tag) })}
            style={{
              borderWidth: 1,
              borderRadius: 4,
              borderColor: colours.rule,
              backgroundColor: colours.sheet,
              paddingHorizontal: 12,
            }}
          >
            <Type>{tag} ×</Type>
          </Press>
        ))}
      </View>
      {proposed.length > 0 && (
        <Proposal
          label="Tags"
          value={proposed.join(', ')}
          onAccept={() => add(proposed)}
          onDrop={() => onSet({ drop: ['tags'] })}
        />
      )}
      <LineEntry label="Add a tag" action="Add tag" value={typed} onChange={setTyped} onSubmit={save} maxLength={60} />
    </View>
  );
}
