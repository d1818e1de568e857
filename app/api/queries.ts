import type { Job } from '@immeld/core/contract/jobs';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { ReplacementSearch } from '@immeld/core/contract/replacements';
import type { ListSort } from '@immeld/core/contract/recordingLists';
import { isQuestion } from '@immeld/core/find/question';
import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect } from 'react';
import { withNotesOnlyHere } from '../offline/noteDrafts';
import { withChangesToSend, withTodosToSend } from '../offline/todosToSend';
import { localDay } from '../ui/dates';
import { addressOf, call } from './call';
import { refreshSoon } from './refreshSoon';
import { useDebounced } from './useDebounced';

const PAGE = 50;
const MAX_AT_ONCE = 200;
const LISTEN_AGAIN_MS = 2000;
export type ListPlace = 'tray' | 'shelves' | 'favourites' | 'archive' | 'bin' | 'all';
export type ListFilter = {
  place: ListPlace;
  folderId?: string;
  tag?: string;
  personId?: string;
  projectId?: string;
  sort?: ListSort;
};

export const useShelves = () => useQuery({ queryKey: ['shelves'], queryFn: () => call('getShelves') });
export const useStatus = () => useQuery({ queryKey: ['status'], queryFn: () => call('status'), staleTime: Infinity });

/** IANA name of the time zone of this device. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

export const useDay = (date: string) =>
  useQuery({
    queryKey: ['recordings', 'day', date],
    queryFn: async () => {
      const day = await call('getDay', { params: { date }, query: { zone: ownZone() } });
      return { ...day, todos: withChangesToSend(day.todos) };
    },
    placeholderData: keepPreviousData,
  });

/** Recordings of a place, a page at a time. */
export function useRecordings(filter: ListFilter) {
  return useInfiniteQuery({
    queryKey: ['recordings', 'list', filter],
    initialPageParam: 0,
    queryFn: ({ pageParam }) => call('listRecordings', { query: { ...filter, limit: PAGE, offset: pageParam } }),
    getNextPageParam: (last, pages) => {
      const loaded = pages.reduce((n, p) => n + p.items.length, 0);
      return loaded < last.total ? loaded : undefined;
    },
  });
}

/** Everything that a list would show at its end, also what was not scrolled to. */
export async function allRecordings(filter: ListFilter): Promise<RecordingCard[]> {
  const all: RecordingCard[] = [];
  for (;;) {
    const { items, total } = await call('listRecordings', {
      query: { ...filter, limit: MAX_AT_ONCE, offset: all.length },
    });
    all.push(...items);
    if (items.length === 0 || all.length >= total) return all;
  }
}

export const useRecording = (id: string) =>
  useQuery({
    queryKey: ['recordings', 'one', id],
    queryFn: async () => {
      const recording = await call('getRecording', { params: { id } });
      return { ...recording, todos: withChangesToSend(recording.todos) };
    },
  });

export const useVersions = (id: string) =>
  useQuery({ queryKey: ['recordings', 'versions', id], queryFn: () => call('listVersions', { params: { id } }) });

export const useVersion = (id: string, versionId: string) =>
  useQuery({
    queryKey: ['recordings', 'versions', id, versionId],
    queryFn: () => call('getVersion', { params: { id, versionId } }),
    staleTime: Infinity,
  });

export const useAppointments = (date: string, isWanted: boolean) =>
  useQuery({
    queryKey: ['recordings', 'appointments', date],
    queryFn: () => call('listAppointments', { query: { from: date, to: date, zone: ownZone() } }),
    enabled: isWanted,
  });

export const useCalendars = () => useQuery({ queryKey: ['calendars'], queryFn: () => call('listCalendars') });
const OLDER_AGAIN_MS = 5000;
/** Recordings that the chosen model would transcribe better; asked again and again while they are being worked on. */
export const useOlderTranscripts = () =>
  useQuery({
    queryKey: ['settings', 'older'],
    queryFn: () => call('getOlderTranscripts'),
    refetchInterval: ({ state }) => (state.data?.isWorking ? OLDER_AGAIN_MS : false),
  });
export const useSharedSettings = () => useQuery({ queryKey: ['settings'], queryFn: () => call('getSettings') });

export const useAccount = () => useQuery({ queryKey: ['account'], queryFn: () => call('getAccount') });
export const useSessions = (isWanted: boolean) =>
  useQuery({ queryKey: ['account', 'sessions'], queryFn: () => call('listSessions'), enabled: isWanted });

export const useNotes = ({ place, folderId, tag }: ListFilter, isWanted = true) =>
  useQuery({
    queryKey: ['notes', 'list', place, folderId, tag],
    queryFn: async () => {
      const { items } = await call('listNotes', { query: { place: place === 'tray' ? 'all' : place, folderId, tag } });
      const isShelf = !tag && (place === 'all' || place === 'shelves');
      return { items: isShelf ? withNotesOnlyHere(items, folderId) : items };
    },
    enabled: isWanted,
  });
export const useNote = (id: string, isWanted: boolean) =>
  useQuery({
    queryKey: ['notes', 'one', id],
    queryFn: () => call('getNote', { params: { id } }),
    enabled: isWanted,
  });
export const useNoteVersions = (id: string) =>
  useQuery({ queryKey: ['notes', 'versions', id], queryFn: () => call('listNoteVersions', { params: { id } }) });
export const useNoteVersion = (id: string, versionId: string) =>
  useQuery({
    queryKey: ['notes', 'versions', id, versionId],
    queryFn: () => call('getNoteVersion', { params: { id, versionId } }),
  });
export const useRelatedToNote = (id: string) =>
  useQuery({ queryKey: ['notes', 'related', id], queryFn: () => call('getRelatedToNote', { params: { id } }) });
export const useRelated = (id: string) =>
  useQuery({ queryKey: ['recordings', 'related', id], queryFn: () => call('getRelated', { params: { id } }) });
export const useWeeks = (until: string, count: number) =>
  useQuery({
    queryKey: ['recordings', 'weeks', until, count],
    queryFn: () => call('getWeeks', { query: { until, count, zone: ownZone() } }),
  });
export const useDeeds = () => useQuery({ queryKey: ['history'], queryFn: () => call('listDeeds') });
/** Recordings and notes that a link may lead to, by words of their titles. */
export const linkTargets = async (q: string) => (await call('listLinkTargets', { query: { q } })).items;

/** The answer to a question; what is no question has none. */
export function useAnswer(typed: string) {
  const q = useDebounced(typed);
  return useQuery({
    queryKey: ['find', 'answer', q],
    queryFn: ({ signal }) => call('ask', { query: { q, today: localDay(new Date()), zone: ownZone() }, signal }),
    enabled: isQuestion(q),
  });
}

export const useTodos = () =>
  useQuery({
    queryKey: ['todos'],
    queryFn: async () => ({ items: withTodosToSend((await call('listTodos', { query: { state: 'ink' } })).items) }),
  });

export const useTodoFeed = () => useQuery({ queryKey: ['todoFeed'], queryFn: () => call('todoFeed') });

/** What is found as one types; a request that is not wanted any more is stopped. */
export function useFind(typed: string) {
  const q = useDebounced(typed);
  return useQuery({
    queryKey: ['find', q],
    queryFn: ({ signal }) => call('find', { query: { q }, signal }),
    enabled: q.trim().length > 0,
    placeholderData: keepPreviousData,
  });
}

/** Where the words stand that are to be replaced; asked anew as one types. */
export const useReplacementPreview = (search: ReplacementSearch) =>
  useQuery({
    queryKey: ['recordings', 'replacements', search],
    queryFn: ({ signal }) => call('previewReplacement', { body: search, signal }),
    enabled: search.find.length > 0,
    placeholderData: keepPreviousData,
  });

/** The recognition of a recording; its component is drawn again only when this one changes. */
export const useJobOf = (recordingId: string): Job | undefined =>
  useQuery({
    queryKey: ['jobs'],
    queryFn: () => call('listJobs'),
    select: useCallback(
      ({ items }: { items: Job[] }) => items.findLast((j) => j.recordingId === recordingId),
      [recordingId],
    ),
  }).data;

/** What waits, runs, rests or has failed. */
export const useJobs = () => useQuery({ queryKey: ['jobs'], queryFn: () => call('listJobs') });

/** What can be done about a recognition. */
export function useJobChanges() {
  const client = useQueryClient();
  const done = { onSettled: () => refreshSoon(client) };
  return {
    pauseJob: useMutation({ mutationFn: (id: string) => call('pauseJob', { params: { id } }), ...done }),
    resumeJob: useMutation({ mutationFn: (id: string) => call('resumeJob', { params: { id } }), ...done }),
    moveJobToFront: useMutation({ mutationFn: (id: string) => call('moveJobToFront', { params: { id } }), ...done }),
    orderJobs: useMutation({
      mutationFn: (ids: string[]) => call('orderJobs', { body: { ids } }),
      // Seen at once; the answer says how it is.
      onSuccess: (jobs) => client.setQueryData(['jobs'], jobs),
      ...done,
    }),
    cancelJob: useMutation({ mutationFn: (id: string) => call('cancelJob', { params: { id } }), ...done }),
    retryJob: useMutation({ mutationFn: (id: string) => call('retryJob', { params: { id } }), ...done }),
  };
}

/** Keeps the list of recognitions true while any screen is open, from the server's events. */
export function useJobEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    // What ended while nobody listened is seen by asking anew.
    const askAnew = () => {
      for (const queryKey of [['jobs'], ['recordings'], ['shelves']]) void client.invalidateQueries({ queryKey });
    };
    const hear = (event: Event) => {
      const job = JSON.parse((event as MessageEvent<string>).data) as Job;
      const before = client.getQueryData<{ items: Job[] }>(['jobs'])?.items.find((j) => j.id === job.id);
      // More of it can be read than a moment ago.
      if (job.passages > (before?.passages ?? 0)) {
        void client.invalidateQueries({ queryKey: ['recordings', 'one', job.recordingId] });
        if (!before?.passages) refreshSoon(client);
      }
      client.setQueryData<{ items: Job[] }>(['jobs'], (known) => {
        const others = (known?.items ?? []).filter((j) => j.id !== job.id);
        return { items: job.state === 'done' ? others : [...others, job] };
      });
      // An older list that is still on its way would put back what this event has changed.
      if (job.state !== 'running') void client.cancelQueries({ queryKey: ['jobs'] });
      if (job.state !== 'running' || job.percent === null) refreshSoon(client);
    };
    let events: EventSource;
    let timer: ReturnType<typeof setTimeout>;
    const listen = () => {
      events = new EventSource(addressOf('jobEvents'));
      events.addEventListener('open', askAnew);
      events.addEventListener('job', hear);
      // A server that refused, because this device was no guest yet, is not asked again by the browser itself.
      events.addEventListener('error', () => {
        if (events.readyState === EventSource.CLOSED) timer = setTimeout(listen, LISTEN_AGAIN_MS);
      });
    };
    listen();
    return () => {
      clearTimeout(timer);
      events.close();
    };
  }, [client]);
}

/** What a word means, in its sentence. Meanings do not change: asked once, it is known. */
export const useMeaning = (word: string, context: string) =>
  useQuery({
    queryKey: ['meanings', word, context],
    queryFn: () => call('getMeaning', { query: { word, context } }),
    staleTime: Infinity,
  });
