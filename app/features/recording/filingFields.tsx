import type { Recording } from '@immeld/core/contract/recordings';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { ownZone, useAppointments, useShelves } from '../../api/queries';
import { LineEntry } from '../../ui/lineEntry';
import { Field } from '../../ui/field';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { appointmentTimes } from '../day/appointmentBracket';
import { FolderChips } from '../shelves/folderChips';
import { useClosable } from '../../ui/useClosable';

type FieldProps = {
  recording: Recording;
  onSet: ReturnType<typeof useChanges>['recording']['mutate'] extends (v: infer V, ...rest: never[]) => void
    ? (part: V extends { change: infer C } ? C : never) => void
    : never;
};

/** The appointment a recording belongs to; a wrong one is changed with one tap. */
export function AppointmentField({ recording, onSet }: FieldProps) {
  const [isOpen, setOpen] = useClosable(false);
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
        <Type tone="faint">Not part of an appointment.</Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {appointment && <WordButton label="Remove" onPress={() => choose(null)} />}
        {!isOpen && others.length > 0 && (
          <WordButton label="Choose another appointment" onPress={() => setOpen(true)} />
        )}
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
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label={`Accept ${label.toLowerCase()}`} isBold onPress={onAccept} />
        <WordButton label={`Drop ${label.toLowerCase()}`} onPress={onDrop} />
        {onAnother && <WordButton label={`Suggest another ${label.toLowerCase()}`} onPress={onAnother} />}
      </View>
    </PencilBox>
  );
}

export function TitleField({ recording, onSet }: FieldProps) {
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

export function FolderField({ recording, onSet }: FieldProps) {
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
      <LineEntry label="New folder" action="Add" value={name} onChange={setName} onSubmit={make} maxLength={80} />
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
export function NamesField({ title, one, names, suggested, onSet, onDrop }: NamesFieldProps) {
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
            label={`Remove ${one} ${name}`}
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

export function ProjectField({ recording, onSet }: FieldProps) {
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
          label="Belongs to"
          options={[NO_PROJECT, ...known]}
          nameOf={(name) => name}
          chosen={project ?? NO_PROJECT}
          onChoose={(name) => onSet({ project: name === NO_PROJECT ? null : name })}
        />
      )}
      <LineEntry label="New project" action="Add" value={typed} onChange={setTyped} onSubmit={make} maxLength={60} />
    </View>
  );
}

const NO_PROJECT = 'none';
