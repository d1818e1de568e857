import { HIT_END, HIT_START, type FindResult } from '@immeld/core/contract/find';
import { clockTime } from '@immeld/core/formats/times';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { FlatList, View } from 'react-native';
import { useFind } from '../api/queries';
import { whenSaid } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { Press } from '../ui/press';
import { Page } from '../ui/shell';
import { useColours } from '../ui/theme';
import { Type } from '../ui/type';

export default function FindScreen() {
  const { q = '' } = useLocalSearchParams<{ q?: string }>();
  const { data, error, isFetching, refetch } = useFind(q);
  const results = q.trim() ? (data?.results ?? []) : [];
  return (
    <Page>
      <FlatList
        data={results}
        keyExtractor={(r) => r.recordingId}
        renderItem={({ item }) => <Found result={item} />}
        contentContainerStyle={{ paddingVertical: 12 }}
        ListHeaderComponent={
          results.length > 0 ? (
            <Type size="tiny" tone="faint" role="status">
              Found in {results.length} {results.length === 1 ? 'recording' : 'recordings'}
            </Type>
          ) : null
        }
        ListEmptyComponent={
          error ? (
            <Failure error={error} onRetry={() => void refetch()} />
          ) : isFetching && !data ? (
            <Loading label="Looking" />
          ) : q.trim() ? (
            <Empty title={`Nothing found for “${q.trim()}”`}>
              Every word has to be in the same passage or title. Try fewer words, or the beginning of a word.
            </Empty>
          ) : (
            <Empty title="Find what was said">
              Type some words from a title or from what was said. Words in quotes stand together; a word with a minus
              must not be there.
            </Empty>
          )
        }
      />
    </Page>
  );
}

function Found({ result }: { result: FindResult['results'][number] }) {
  const colours = useColours();
  const router = useRouter();
  const open = (at: number | null) =>
    router.push({
      pathname: '/recordings/[id]',
      params: { id: result.recordingId, ...(at === null ? {} : { at: String(at) }) },
    });
  return (
    <View
      style={{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 10 }}
      role="article"
      aria-label={result.title}
    >
      <Press label={result.title} role="link" onPress={() => open(null)}>
        <Type size="body" face="text" isBold>
          {result.title}
        </Type>
        <Type size="tiny" tone="faint">
          {whenSaid(result.startedAt)}
        </Type>
      </Press>
      {result.hits
        .filter((hit) => hit.startMs !== null)
        .map((hit) => (
          <Press
            key={hit.startMs}
            role="link"
            label={`${clockTime(hit.startMs!)} ${hit.snippet.replace(/[\u2068\u2069]/g, '')}`}
            onPress={() => open(hit.startMs)}
            style={{ flexDirection: 'row', gap: 12, alignItems: 'baseline', justifyContent: 'flex-start' }}
          >
            <Type size="tiny" tone="petrol" style={{ width: 44 }}>
              {clockTime(hit.startMs!)}
            </Type>
            <Snippet text={hit.snippet} />
          </Press>
        ))}
    </View>
  );
}

function Snippet({ text }: { text: string }) {
  const colours = useColours();
  return (
    <Type face="text" style={{ flex: 1 }}>
      {text.split(HIT_START).map((part, i) => {
        const [hit, rest] = i === 0 ? ['', part] : part.split(HIT_END);
        return [
          hit ? (
            <Type key={`${i}h`} face="text" isBold style={{ backgroundColor: colours.lit }}>
              {hit}
            </Type>
          ) : null,
          rest,
        ];
      })}
    </Type>
  );
}
