import { clockTime } from '@immeld/core/formats/times';
import { useMemo, useState } from 'react';
import { FlatList, View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useReplacementPreview, useShelves } from '../../api/queries';
import { Back } from '../../ui/back';
import { Choice } from '../../ui/choice';
import { whenSaid } from '../../ui/dates';
import { Field } from '../../ui/field';
import { Empty, Failure, Loading } from '../../ui/notice';
import { FrameButton, Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { type Place, chosenPassages, rowsOf } from './places';

type Where = 'here' | 'folder' | 'everywhere';
type Here = { id: string; title: string; folderId: string | null };

/** Words replaced in this recording, its folder or everywhere; each place is shown before and can be left out. */
export function ReplaceWords({ recording, find: begun }: { recording: Here | null; find: string }) {
  const show = useUndoBar();
  const [find, setFind] = useState(begun);
  const [by, setBy] = useState('');
  const [matchesCase, setMatchesCase] = useState(false);
  const [where, setWhere] = useState<Where>(recording ? 'here' : 'everywhere');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { data: shelves } = useShelves();
  const { replaceWords, undoReplacement } = useChanges();
  const folder = shelves?.folders.find((f) => f.id === recording?.folderId);
  const search = {
    ...{ find: find.trim(), by: by.trim(), matchesCase },
    ...(where === 'here' && recording ? { recordingId: recording.id } : {}),
    ...(where === 'folder' && folder ? { folderId: folder.id } : {}),
  };
  const { data, error, isFetching, refetch } = useReplacementPreview(search);
  const preview = search.find ? data : undefined;
  const rows = useMemo(() => rowsOf(preview), [preview]);
  const passages = useMemo(() => chosenPassages(preview, left), [preview, left]);
  const count = passages.reduce((sum, p) => sum + p.indexes.length, 0);

  const flip = (key: string) => {
    const next = new Set(left);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  const replace = () =>
    replaceWords.mutate(
      { ...{ find: search.find, by: search.by, matchesCase }, passages },
      {
        onSuccess: ({ id, replaced, skipped }) => {
          setLeft(new Set());
          const others = skipped ? ` ${skipped} changed elsewhere in the meantime and stayed as they are.` : '';
          show(`${places(replaced)} replaced.${others}`, () => undoReplacement.mutate(id));
        },
      },
    );
  return (
    <FlatList
      data={rows}
      keyExtractor={(row) => row.key}
      keyboardShouldPersistTaps="handled"
      contentContainerStyle={{ paddingVertical: 12, paddingBottom: 40 }}
      renderItem={({ item }) =>
        item.kind === 'recording' ? (
          <View style={{ paddingTop: 14 }}>
            <Type size="body" face="text" isBold>
              {item.title}
            </Type>
            <Type size="tiny" tone="faint">
              {whenSaid(item.startedAt)}
            </Type>
          </View>
        ) : (
          <PlaceRow place={item} isChosen={!left.has(item.key)} onPress={() => flip(item.key)} />
        )
      }
      ListHeaderComponent={
        <View style={{ gap: 8 }}>
          {recording && (
            <Back home={{ pathname: '/recordings/[id]', params: { id: recording.id } }} size="tiny">
              {recording.title}
            </Back>
          )}
          <Title>Replace words</Title>
          <Field label="Find" value={find} onChangeText={setFind} maxLength={200} autoFocus />
          <Field label="Replace with" value={by} onChangeText={setBy} maxLength={200} />
          <View role="radiogroup" aria-label="Where to replace">
            {recording && <Choice label="In this recording" isOn={where === 'here'} onPress={() => setWhere('here')} />}
            {folder && (
              <Choice label={`In ${folder.name}`} isOn={where === 'folder'} onPress={() => setWhere('folder')} />
            )}
            {recording && (
              <Choice label="Everywhere" isOn={where === 'everywhere'} onPress={() => setWhere('everywhere')} />
            )}
          </View>
          <Choice
            role="switch"
            label="Match capitals"
            isOn={matchesCase}
            onPress={() => setMatchesCase(!matchesCase)}
          />
          {replaceWords.error && <Failure error={replaceWords.error} />}
          {undoReplacement.error && <Failure error={undoReplacement.error} />}
          {rows.length > 0 && (
            <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 12 }}>
              <FrameButton
                label={by.trim() ? `Replace ${places(count)}` : `Remove ${places(count)}`}
                isMain
                disabled={count === 0 || replaceWords.isPending}
                onPress={replace}
              />
              {left.size > 0 && <WordButton label="Select all" onPress={() => setLeft(new Set())} />}
            </View>
          )}
          {preview?.isCut && (
            <Type size="tiny" tone="faint" role="status">
              Showing the first 500 places. Replace these to see the rest.
            </Type>
          )}
        </View>
      }
      ListEmptyComponent={
        error ? (
          <Failure error={error} onRetry={() => void refetch()} />
        ) : !search.find ? (
          <Empty title="See every change first">
            Type the words as they appear in the text. Nothing changes until you press Replace.
          </Empty>
        ) : isFetching ? (
          <Loading label="Searching" />
        ) : (
          <Empty title={`“${search.find}” was not found`}>
            Immeld looks for whole words as they appear in the text. Search more recordings, or use fewer words.
          </Empty>
        )
      }
    />
  );
}

const places = (count: number): string => `${count} ${count === 1 ? 'place' : 'places'}`;

function PlaceRow({ place, isChosen, onPress }: { place: Place; isChosen: boolean; onPress: () => void }) {
  const colours = useColours();
  const { hit } = place;
  return (
    <Press
      role="checkbox"
      aria-checked={isChosen}
      label={`${clockTime(hit.startMs)} ${hit.before} ${hit.found}, ${hit.instead || 'removed'}, ${hit.after}`}
      onPress={onPress}
      style={{
        ...{ flexDirection: 'row', gap: 12, alignItems: 'baseline', justifyContent: 'flex-start', paddingVertical: 8 },
        ...{ borderBottomWidth: 1, borderBottomColor: colours.rule },
      }}
    >
      <View style={{ width: 18, height: 18, borderWidth: 1.5, borderColor: colours.ink, borderRadius: 4, padding: 3 }}>
        {isChosen && <View style={{ flex: 1, backgroundColor: colours.petrol }} />}
      </View>
      <Type size="tiny" tone="faint" style={{ width: 44 }}>
        {clockTime(hit.startMs)}
      </Type>
      <Type face="text" style={{ flex: 1 }} tone={isChosen ? 'ink' : 'faint'}>
        {hit.before}{' '}
        <Type face="text" tone="rowan" style={{ textDecorationLine: 'line-through' }}>
          {hit.found}
        </Type>{' '}
        {hit.instead !== '' && (
          <Type face="text" isBold tone="lichen">
            {hit.instead}
          </Type>
        )}{' '}
        {hit.after}
      </Type>
    </Press>
  );
}
