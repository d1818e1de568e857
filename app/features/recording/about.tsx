import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { FORMATS, FORMAT_TYPES } from '@immeld/core/formats/formats';
import { useRouter } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { ownZone, useAppointments, useChanges, useRelated, useShelves } from '../../api/queries';
import { OneOf } from '../../ui/oneOf';
import { FolderChips } from '../shelves/folderChips';
import { RelatedList } from '../shelves/relatedList';
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
import { Paragraphs } from './paragraphs';
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
      <NamesField
        title="Tags"
        one="tag"
        names={recording.tags}
        suggested={recording.suggestion.tags}
        onSet={(tags) => set({ tags })}
        onDrop={() => set({ drop: ['tags'] })}
      />
      <NamesField
        title="People"
        one="person"
        names={recording.people}
        suggested={recording.suggestion.people ?? []}
        onSet={(people) => set({ people })}
        onDrop={() => set({ drop: ['people'] })}
      />
      <ProjectField recording={recording} onSet={set} />
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
        <Press
          role="link"
          label="A page to read and print"
          disabled={recording.passages.length === 0}
          onPress={() => router.navigate({ pathname: '/page/[id]', params: { id: recording.id } })}
        >
          <Type tone="petrol" style={{ textDecorationLine: 'underline' }}>
            A page to read and print
          </Type>
        </Press>
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
      {recording.passages.length > 0 && (
        <Choice
          role="switch"
          label="This is a dictation"
          hint="Spoken commands such as “new paragraph” are done and not written"
          isOn={recording.isDictation}
          onPress={() => {
            const isDictation = !recording.isDictation;
            set({ isDictation });
            show(isDictation ? 'The spoken commands are done.' : 'The spoken commands are written.', () =>
              set({ isDictation: !isDictation }),
            );
          }}
        />
      )}
      {!recording.isDictation && <Paragraphs recording={recording} />}
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
      <Besides id={recording.id} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label={recording.isFavourite ? 'No favourite' : 'Favourite'}
          onPress={() => set({ isFavourite: !recording.isFavourite })}
        />
        <WordButton
          label={recording.isArchived ? 'Out of the archive' : 'Archive'}
          onPress={() => {
            set({ isArchived: !recording.isArchived });
            if (!recording.isArchived) show('In the archive.', () => set({ isArchived: false }));
          }}
        />
        {recording.state === 'ready' && (
          <TranscribeAgain onAgain={(cleaning) => recognise.mutate({ id: recording.id, cleaning })} />
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
  onAnother,
}: {
  label: string;
  value: string;
  onAccept: () => void;
  onDrop: () => void;
  /** Where there is something else to propose. */
  onAnother?: () => void;
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
        {onAnother && <WordButton label={`Another ${label.toLowerCase()}`} onPress={onAnother} />}
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
          {...(suggestion.otherTitles?.length
            ? { onAnother: () => onSet({ suggestedTitle: suggestion.otherTitles![0]! }) }
            : {})}
        />
      )}
    </View>
  );
}

function FolderField({ recording, onSet }: FieldProps) {
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
      <FolderChips label="Folder" chosen={recording.folderId} onChoose={(folderId) => onSet({ folderId })} />
      <LineEntry label="New folder" action="Make it" value={name} onChange={setName} onSubmit={make} maxLength={80} />
    </View>
  );
}

type NamesFieldProps = {
  title: string;
  /** What one of them is called: "tag", "person". */
  one: string;
  names: readonly string[];
  suggested: readonly string[];
  onSet: (names: string[]) => void;
  onDrop: () => void;
};

/** Tags or people: taken away with a tap, added by name, accepted from pencil. */
function NamesField({ title, one, names, suggested, onSet, onDrop }: NamesFieldProps) {
  const colours = useColours();
  const [typed, setTyped] = useState('');
  const proposed = suggested.filter((t) => !names.includes(t));
  const add = (more: readonly string[]) => onSet([...new Set([...names, ...more])]);
  const save = () => {
    if (typed.trim()) add([typed.trim()]);
    setTyped('');
  };
  return (
    <View>
      <Title level={2}>{title}</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 6 }}>
        {names.map((name) => (
          <Press
            key={name}
            label={`Take the ${one} ${name} away`}
            onPress={() => onSet(names.filter((t) => t !== name))}
            style={{
              borderWidth: 1,
              borderRadius: 4,
              borderColor: colours.rule,
              backgroundColor: colours.sheet,
              paddingHorizontal: 12,
            }}
          >
            <Type>{name} ×</Type>
          </Press>
        ))}
      </View>
      {proposed.length > 0 && (
        <Proposal label={title} value={proposed.join(', ')} onAccept={() => add(proposed)} onDrop={onDrop} />
      )}
      <LineEntry
        label={`Add a ${one}`}
        action={`Add ${one}`}
        value={typed}
        onChange={setTyped}
        onSubmit={save}
        maxLength={60}
      />
    </View>
  );
}

function ProjectField({ recording, onSet }: FieldProps) {
  const { data } = useShelves();
  const [typed, setTyped] = useState('');
  const { project, suggestion } = recording;
  const known = data?.projects.map((p) => p.name) ?? [];
  const make = () => {
    onSet({ project: typed.trim() });
    setTyped('');
  };
  return (
    <View>
      <Title level={2}>Project</Title>
      {!project && suggestion.project && (
        <Proposal
          label="Project"
          value={suggestion.project}
          onAccept={() => onSet({ project: suggestion.project ?? null })}
          onDrop={() => onSet({ drop: ['project'] })}
        />
      )}
      {known.length > 0 && (
        <OneOf
          label="It belongs to"
          options={[NO_PROJECT, ...known]}
          nameOf={(name) => name}
          chosen={project ?? NO_PROJECT}
          onChoose={(name) => onSet({ project: name === NO_PROJECT ? null : name })}
        />
      )}
      <LineEntry
        label="New project"
        action="Make it"
        value={typed}
        onChange={setTyped}
        onSubmit={make}
        maxLength={60}
      />
    </View>
  );
}

const NO_PROJECT = 'none';

/** What belongs beside the recording, with the reason, and the notes that link to it. */
function Besides({ id }: { id: string }) {
  const { data } = useRelated(id);
  return (
    <>
      <RelatedList title="Beside it" items={data?.items ?? []} />
      <RelatedList title="Notes that link here" items={data?.linkedFrom ?? []} />
    </>
  );
}

/** Again with the names of now; with a low cut where the sound rumbles, which is the one step that can help. */
function TranscribeAgain({ onAgain }: { onAgain: (cleaning: Partial<Cleaning>) => void }) {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen) return <WordButton label="Transcribe again" onPress={() => setOpen(true)} />;
  const again = (cleaning: Partial<Cleaning>) => {
    setOpen(false);
    onAgain(cleaning);
  };
  return (
    <View role="group" aria-label="Transcribe again" style={{ width: '100%' }}>
      <WordButton label="The sound as it is, with today’s names and terms" isBold onPress={() => again({})} />
      <WordButton label="With rumble cut away" onPress={() => again({ lowCut: 1 })} />
      <WordButton label="With noise brought down" onPress={() => again({ noise: 0.4 })} />
      <WordButton label="With even loudness" onPress={() => again({ loudness: 1 })} />
      <Type size="tiny" tone="faint">
        The text of now is kept as a version where you have corrected it.
      </Type>
      <WordButton label="Not now" onPress={() => setOpen(false)} />
    </View>
  );
}
