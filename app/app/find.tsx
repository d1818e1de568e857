import type { Found, FindHit } from '@immeld/core/contract/find';
import { HIT_END, HIT_START } from '@immeld/core/contract/find';
import { hasFilters, parseQuery } from '@immeld/core/find/query';
import { clockTime } from '@immeld/core/formats/times';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { FlatList, View } from 'react-native';
import { useAnswer, useFind } from '../api/queries';
import { AnswerView } from '../features/find/answerView';
import { FilterChips } from '../features/find/filterChips';
import { FoundHere } from '../features/here/foundHere';
import { useHitKeys } from '../features/find/useHitKeys';
import { localTime, whenSaid } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { Press, WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { useColours } from '../ui/theme';
import { Type, UnseenTitle } from '../ui/type';

/** What was found as one types, the answer above it where a question was asked. */
export default function FindScreen() {
  const { q = '' } = useLocalSearchParams<{ q?: string }>();
  const router = useRouter();
  const { data, error, isFetching, refetch } = useFind(q);
  const answer = useAnswer(q);
  const results = q.trim() ? (data?.results ?? []) : [];
  const current = useHitKeys(results);
  const asked = answer.data?.kind ? answer.data : null;
  const words = parseQuery(q);
  return (
    <Page>
      <UnseenTitle>Find</UnseenTitle>
      <FlatList
        data={results}
        extraData={current}
        keyExtractor={(r) => r.id}
        renderItem={({ item }) => <FoundItem found={item} current={current} />}
        contentContainerStyle={{ paddingVertical: 12 }}
        keyboardShouldPersistTaps="handled"
        ListHeaderComponent={
          <View>
            <FilterChips typed={q} onChange={(text) => router.setParams({ q: text })} />
            <FoundHere q={q} />
            {asked && <AnswerView answer={asked} />}
            {answer.isLoading && <Loading label="Looking for an answer" />}
            {answer.error && <Failure error={answer.error} onRetry={() => void answer.refetch()} />}
            {data?.instead.map(({ word, others }) => (
              <Type key={word} tone="faint" role="status">
                No results for “{word}”. Showing {others.map((o) => `“${o}”`).join(', ')} instead.
              </Type>
            ))}
            {results.length > 0 && (
              <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
                <Type size="tiny" tone="faint" role="status">
                  {asked ? 'The words also appear in' : 'Found in'} {results.length}{' '}
                  {results.length === 1 ? 'place' : 'places'}
                </Type>
                {!asked && words.required.length > 0 && !hasFilters(words.filters) && (
                  <WordButton
                    label="Replace these words"
                    onPress={() => router.push({ pathname: '/replace', params: { find: q.trim() } })}
                    style={{ marginRight: 0 }}
                  />
                )}
              </View>
            )}
          </View>
        }
        ListEmptyComponent={
          error ? (
            <Failure error={error} onRetry={() => void refetch()} />
          ) : isFetching && !data ? (
            <Loading label="Searching" />
          ) : asked || answer.isLoading ? null : q.trim() ? (
            <Empty title={`Nothing found for “${shortened(q.trim())}”`}>
              All words must be in the same passage, title, note or to-do. Try fewer words, or only the beginning of a
              word.
            </Empty>
          ) : (
            <Empty title="Find what was said, or ask a question">
              Search titles, notes and everything that was said. Put an exact phrase in quotes; put a minus before a
              word to exclude it. Or ask a question: “What did the arborist say about the roots?”
            </Empty>
          )
        }
      />
    </Page>
  );
}

const shortened = (text: string): string => (text.length > 80 ? `${text.slice(0, 80)} …` : text);

const KIND_NAMES: Record<FindHit['kind'], string> = {
  ...{
    title: 'Title',
    passage: '',
    note: 'Note',
    slip: 'Slip',
    todo: 'To-do',
    tag: 'Tag',
    person: 'Person',
    file: 'File',
  },
};

function FoundItem({ found, current }: { found: Found; current: string | null }) {
  const colours = useColours();
  const router = useRouter();
  const open = (at: number | null) =>
    router.push(
      found.kind === 'note'
        ? { pathname: '/notes/[id]', params: { id: found.id } }
        : { pathname: '/recordings/[id]', params: { id: found.id, ...(at === null ? {} : { at: String(at) }) } },
    );
  const title = found.title || 'Untitled note';
  const when = whenSaid(found.kind === 'note' ? localTime(new Date(found.at)) : found.at);
  // A title that is shown above says itself what was found.
  const hits = found.hits.filter((hit) => hit.kind !== 'title' || plain(hit.snippet) !== found.title);
  return (
    <View
      style={{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 10 }}
      role="article"
      aria-label={title}
    >
      <Press
        label={title}
        role="link"
        onPress={() => open(null)}
        style={{ backgroundColor: current === found.id ? colours.lit : undefined }}
      >
        <Type size="body" face="text" isBold>
          {title}
        </Type>
        <Type size="tiny" tone="faint">
          {found.kind === 'note' ? `note · ${when}` : when}
        </Type>
      </Press>
      {hits.map((hit, i) => (
        <Press
          key={`${hit.kind} ${hit.startMs} ${i}`}
          role="link"
          label={`${hit.startMs === null ? KIND_NAMES[hit.kind] : clockTime(hit.startMs)} ${plain(hit.snippet)}`}
          onPress={() => open(hit.startMs)}
          style={{
            ...{ flexDirection: 'row', gap: 12, alignItems: 'baseline', justifyContent: 'flex-start' },
            backgroundColor: current === `${found.id} ${i}` ? colours.lit : undefined,
          }}
        >
          <Type size="tiny" tone={hit.startMs === null ? 'faint' : 'petrol'} style={{ width: 48 }}>
            {hit.startMs === null ? KIND_NAMES[hit.kind] : clockTime(hit.startMs)}
          </Type>
          <Snippet text={hit.snippet} kind={hit.startMs === null ? '' : KIND_NAMES[hit.kind]} />
        </Press>
      ))}
    </View>
  );
}

const plain = (snippet: string): string => snippet.replace(/[\u2068\u2069]/g, '');

function Snippet({ text, kind }: { text: string; kind: string }) {
  const colours = useColours();
  return (
    <Type face="text" style={{ flex: 1 }}>
      {kind !== '' && (
        <Type size="tiny" tone="faint">
          {kind}{' '}
        </Type>
      )}
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
