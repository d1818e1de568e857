import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { FORMATS, FORMAT_TYPES } from '@immeld/core/formats/formats';
import { useRouter } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { useChanges } from '../../api/changes';
import { useRelated } from '../../api/queries';
import { exportAddress } from '../exports/exportNames';
import { RelatedList } from '../shelves/relatedList';
import { lengthName, sizeName, whenSaid } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { Choice } from '../../ui/choice';
import { Press, WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { AppointmentField, FolderField, NamesField, ProjectField, TitleField } from './filingFields';
import { Paragraphs } from './paragraphs';
import { SpokenKindField } from './spokenKind';
import { TranscribeAgain } from './transcribeAgain';
import { Versions } from './versions';

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
      <SpokenKindField recording={recording} onSet={set} />
      {!recording.isFiled && (
        <WordButton
          label="File"
          isBold
          onPress={() => {
            set({ isFiled: true });
            show('Filed.', () => set({ isFiled: false }));
          }}
        />
      )}
      <View>
        <Title level={2}>Export</Title>
        <WordButton
          label="Choose what to export"
          isBold
          onPress={() => router.push(exportAddress([{ kind: 'recording', id: recording.id }]))}
        />
        <WordButton
          label="Share by link"
          isBold
          disabled={recording.passages.length === 0}
          onPress={() => router.push({ pathname: '/links', params: { item: `r${recording.id}` } })}
        />
        <Press
          role="link"
          label="Print view"
          disabled={recording.passages.length === 0}
          onPress={() => router.navigate({ pathname: '/page/[id]', params: { id: recording.id } })}
        >
          <Type tone="petrol" style={{ textDecorationLine: 'underline' }}>
            Print view
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
            label="Include the consent note"
            hint="In plain text, WebVTT and JSON"
            isOn={withConsent}
            onPress={() => setWithConsent(!withConsent)}
          />
        )}
        {recording.passages.length === 0 && (
          <Type size="tiny" tone="faint">
            There is no text to export yet.
          </Type>
        )}
      </View>
      {recording.passages.length > 0 && (
        <Choice
          role="switch"
          label="This is a dictation"
          hint="Spoken commands such as “new paragraph” are carried out instead of written"
          isOn={recording.isDictation}
          onPress={() => {
            const isDictation = !recording.isDictation;
            set({ isDictation });
            show(
              isDictation ? 'Spoken commands are now carried out.' : 'Spoken commands are now written as text.',
              () => set({ isDictation: !isDictation }),
            );
          }}
        />
      )}
      {!recording.isDictation && <Paragraphs recording={recording} />}
      <View>
        <Title level={2}>About this recording</Title>
        <Fact name="Recorded">{whenSaid(recording.startedAt)}</Fact>
        {recording.isRecovered && (
          <Fact name="Recovered">The recording was interrupted and recovered automatically.</Fact>
        )}
        {recording.state === 'ready' && recording.problem && <Fact name="Problem">{recording.problem}</Fact>}
        {consents.map((s) => (
          <Fact key={s.id} name="Consent">{`${s.text}, at ${clockTime(s.startMs)}`}</Fact>
        ))}
        {recording.place && <Fact name="Place">{recording.place}</Fact>}
        {recording.durationMs !== null && <Fact name="Length">{lengthName(recording.durationMs)}</Fact>}
        <Fact name="File">{`${recording.fileName}, ${sizeName(recording.sizeBytes)}`}</Fact>
        {recording.model && <Fact name="Transcribed">on this machine, with {recording.model}</Fact>}
      </View>
      <Versions recording={recording} />
      <Besides id={recording.id} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label={recording.isFavourite ? 'Remove from favourites' : 'Add to favourites'}
          onPress={() => set({ isFavourite: !recording.isFavourite })}
        />
        <WordButton
          label={recording.isArchived ? 'Unarchive' : 'Archive'}
          onPress={() => {
            set({ isArchived: !recording.isArchived });
            if (!recording.isArchived) show('Archived.', () => set({ isArchived: false }));
          }}
        />
        {recording.state === 'ready' && (
          <TranscribeAgain onAgain={(again) => recognise.mutate({ id: recording.id, ...again })} />
        )}
        {recording.isBinned ? (
          <WordButton label="Restore" isBold onPress={() => set({ isBinned: false })} />
        ) : (
          <WordButton label="Move to bin" onPress={bin} />
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

/** What belongs beside the recording, with the reason, and the notes that link to it. */
function Besides({ id }: { id: string }) {
  const { data } = useRelated(id);
  return (
    <>
      <RelatedList title="Related" items={data?.items ?? []} />
      <RelatedList title="Notes that link here" items={data?.linkedFrom ?? []} />
    </>
  );
}
