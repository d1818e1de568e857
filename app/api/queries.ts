import type { NewCalendar } from '@immeld/core/contract/appointments';
import type { Job } from '@immeld/core/contract/jobs';
import type {
  Filing,
  NewTodo,
  Recording,
  RecordingChange,
  TodoChange,
  WriteUpChange,
} from '@immeld/core/contract/recordings';
import type { SettingsChange } from '@immeld/core/contract/settings';
import type { SpeakerChange } from '@immeld/core/contract/speakers';
import type { SlipChange } from '@immeld/core/contract/slips';
import type { FolderChange, NewFolder } from '@immeld/core/contract/shelves';
import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { addressOf, call } from './call';

export type Credentials = { email: string; password: string };

const PAGE = 50;
const LISTEN_AGAIN_MS = 2000;
export type ListPlace = 'tray' | 'shelves' | 'bin' | 'all';

export const useShelves = () => useQuery({ queryKey: ['shelves'], queryFn: () => call('getShelves') });
export const useStatus = () => useQuery({ queryKey: ['status'], queryFn: () => call('status'), staleTime: Infinity });

/** IANA name of the time zone of this device. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

export const useDay = (date: string) =>
  useQuery({
    queryKey: ['recordings', 'day', date],
    queryFn: () => call('getDay', { params: { date }, query: { zone: ownZone() } }),
    placeholderData: keepPreviousData,
  });

/** Recordings of a place, a page at a time. */
export function useRecordings(filter: { place: ListPlace; folderId?: string; tag?: string }) {
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

export const useRecording = (id: string) =>
  useQuery({ queryKey: ['recordings', 'one', id], queryFn: () => call('getRecording', { params: { id } }) });

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
export const useSharedSettings = () => useQuery({ queryKey: ['settings'], queryFn: () => call('getSettings') });

export const useAccount = () => useQuery({ queryKey: ['account'], queryFn: () => call('getAccount') });
export const useSessions = (isWanted: boolean) =>
  useQuery({ queryKey: ['account', 'sessions'], queryFn: () => call('listSessions'), enabled: isWanted });

export const useTodos = () =>
  useQuery({ queryKey: ['todos'], queryFn: () => call('listTodos', { query: { state: 'ink' } }) });

export const useFind = (q: string) =>
  useQuery({
    queryKey: ['find', q],
    queryFn: () => call('find', { query: { q } }),
    enabled: q.trim().length > 0,
    placeholderData: keepPreviousData,
  });

export const useJobs = () => useQuery({ queryKey: ['jobs'], queryFn: () => call('listJobs') });

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
      client.setQueryData<{ items: Job[] }>(['jobs'], (known) => {
        const others = (known?.items ?? []).filter((j) => j.id !== job.id);
        return { items: job.state === 'done' ? others : [...others, job] };
      });
      // An older list that is still on its way would put back what this event has changed.
      if (job.state !== 'running') void client.invalidateQueries({ queryKey: ['jobs'] });
      if (job.state !== 'running' || job.percent === null) {
        void client.invalidateQueries({ queryKey: ['recordings'] });
        void client.invalidateQueries({ queryKey: ['shelves'] });
      }
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

/** Everything a person can change; each answer refreshes what shows it. */
export function useChanges() {
  const client = useQueryClient();
  const refresh = () =>
    Promise.all(
      [['recordings'], ['shelves'], ['todos'], ['find'], ['calendars']].map((queryKey) =>
        client.invalidateQueries({ queryKey }),
      ),
    );
  const keep = (recording: Recording) => client.setQueryData(['recordings', 'one', recording.id], recording);
  const done = { onSettled: refresh };
  /** Somebody else is signed in: nothing that was shown before is true any more. */
  const refreshAll = () => client.resetQueries();
  return {
    recording: useMutation({
      mutationFn: ({ id, change }: { id: string; change: RecordingChange }) =>
        call('changeRecording', { params: { id }, body: change }),
      onSuccess: keep,
      ...done,
    }),
    file: useMutation({
      mutationFn: ({ id, filing }: { id: string; filing: Filing }) =>
        call('fileRecording', { params: { id }, body: filing }),
      onSuccess: keep,
      ...done,
    }),
    todo: useMutation({
      mutationFn: ({ id, change }: { id: string; change: TodoChange }) =>
        call('changeTodo', { params: { id }, body: change }),
      ...done,
    }),
    slip: useMutation({
      mutationFn: ({ id, change }: { id: string; change: SlipChange }) =>
        call('changeSlip', { params: { id }, body: change }),
      ...done,
    }),
    newTodo: useMutation({ mutationFn: (body: NewTodo) => call('addTodo', { body }), ...done }),
    writeUp: useMutation({
      mutationFn: ({ id, change }: { id: string; change: WriteUpChange }) =>
        call('changeWriteUp', { params: { id }, body: change }),
      ...done,
    }),
    newFolder: useMutation({ mutationFn: (body: NewFolder) => call('addFolder', { body }), ...done }),
    folder: useMutation({
      mutationFn: ({ id, change }: { id: string; change: FolderChange }) =>
        call('changeFolder', { params: { id }, body: change }),
      ...done,
    }),
    signUp: useMutation({ mutationFn: (body: Credentials) => call('signUp', { body }), onSuccess: refreshAll }),
    signIn: useMutation({ mutationFn: (body: Credentials) => call('signIn', { body }), onSuccess: refreshAll }),
    signOut: useMutation({ mutationFn: () => call('signOut'), onSuccess: refreshAll }),
    endSession: useMutation({
      mutationFn: (id: string) => call('endSession', { params: { id } }),
      onSuccess: refreshAll,
    }),
    settings: useMutation({
      mutationFn: (body: SettingsChange) => call('changeSettings', { body }),
      onSuccess: (settings) => client.setQueryData(['settings'], settings),
    }),
    newCalendar: useMutation({ mutationFn: (body: NewCalendar) => call('addCalendar', { body }), ...done }),
    refreshCalendar: useMutation({
      mutationFn: (id: string) => call('refreshCalendar', { params: { id } }),
      ...done,
    }),
    removeCalendar: useMutation({ mutationFn: (id: string) => call('removeCalendar', { params: { id } }), ...done }),
    cancelJob: useMutation({ mutationFn: (id: string) => call('cancelJob', { params: { id } }), ...done }),
    retryJob: useMutation({ mutationFn: (id: string) => call('retryJob', { params: { id } }), ...done }),
    speaker: useMutation({
      mutationFn: ({ id, change }: { id: string; change: SpeakerChange }) =>
        call('changeSpeaker', { params: { id }, body: change }),
      onSuccess: ({ recording }) => keep(recording),
      ...done,
    }),
    takeVersion: useMutation({
      mutationFn: (params: { id: string; versionId: string }) => call('takeVersion', { params }),
      onSuccess: keep,
      ...done,
    }),
    recognise: useMutation({ mutationFn: (id: string) => call('recogniseAgain', { params: { id } }), ...done }),
  };
}
export type Changes = ReturnType<typeof useChanges>;
