import {
  type FindFilters,
  type HasFilter,
  HAS_FILTERS,
  noFilters,
  parseQuery,
  writeFilters,
  writeWords,
} from '@immeld/core/find/query';
import { format, parseISO, startOfMonth, startOfWeek, subMonths } from 'date-fns';
import { ScrollView, View } from 'react-native';
import { useShelves } from '../../api/queries';
import { localDay } from '../../ui/dates';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

type FilterChipsProps = { typed: string; onChange: (typed: string) => void };

const HAS_NAMES: Record<HasFilter, string> = {
  ...{ todo: 'with to-dos', mark: 'with marks', note: 'with slips', picture: 'with pictures', file: 'with files' },
};
type Kind = 'folder' | 'tag' | 'person' | 'time' | 'has';
const KINDS: { kind: Kind; label: string }[] = [
  { kind: 'folder', label: 'Folder' },
  { kind: 'tag', label: 'Tag' },
  { kind: 'person', label: 'Person' },
  { kind: 'time', label: 'Date' },
  { kind: 'has', label: 'Contains' },
];

/** Filters that can be tapped, for whoever does not know their words; they write themselves into the find bar. */
export function FilterChips({ typed, onChange }: FilterChipsProps) {
  const { data } = useShelves();
  const [open, setOpen] = useClosable<Kind | null>(null);
  const query = parseQuery(typed);
  const { filters } = query;
  const set = (next: FindFilters) => {
    onChange([writeWords(query), writeFilters(next)].filter(Boolean).join(' '));
    setOpen(null);
  };
  const now = new Date();
  const since = (date: Date) => () => set({ ...filters, after: localDay(date), before: null });
  const options: Record<Kind, { label: string; act: () => void }[]> = {
    folder: (data?.folders ?? []).map(({ name }) => ({
      ...{ label: name, act: () => set({ ...filters, folders: [name] }) },
    })),
    tag: (data?.tags ?? []).map(({ name }) => ({
      ...{ label: name, act: () => set({ ...filters, tags: [...new Set([...filters.tags, name])] }) },
    })),
    person: (data?.people ?? []).map(({ name }) => ({
      ...{ label: name, act: () => set({ ...filters, people: [...new Set([...filters.people, name])] }) },
    })),
    time: [
      { label: 'today', act: since(now) },
      { label: 'this week', act: since(startOfWeek(now, { weekStartsOn: 1 })) },
      { label: 'this month', act: since(startOfMonth(now)) },
      { label: 'last three months', act: since(subMonths(now, 3)) },
      { label: 'before this month', act: () => set({ ...filters, after: null, before: localDay(startOfMonth(now)) }) },
    ],
    has: HAS_FILTERS.map((kind) => ({
      ...{ label: HAS_NAMES[kind], act: () => set({ ...filters, has: [...new Set([...filters.has, kind])] }) },
    })),
  };
  return (
    <View role="group" aria-label="Filters">
      <ScrollView horizontal showsHorizontalScrollIndicator={false} style={{ flexGrow: 0 }}>
        {KINDS.filter(({ kind }) => options[kind].length > 0).map(({ kind, label }) => (
          <WordButton
            key={kind}
            label={label}
            isBold={open === kind}
            aria-expanded={open === kind}
            onPress={() => setOpen(open === kind ? null : kind)}
          />
        ))}
      </ScrollView>
      {open && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingBottom: 8 }}>
          {options[open].map(({ label, act }) => (
            <Chip key={label} label={label} onPress={act} />
          ))}
        </View>
      )}
      <ActiveFilters filters={filters} onChange={set} />
    </View>
  );
}

function Chip({ label, spoken = label, onPress }: { label: string; spoken?: string; onPress: () => void }) {
  const colours = useColours();
  return (
    <Press
      label={spoken}
      onPress={onPress}
      style={{
        ...{ borderWidth: 1, borderColor: colours.rule, borderRadius: 4, backgroundColor: colours.sheet },
        ...{ paddingHorizontal: 12, alignItems: 'center' },
      }}
    >
      <Type>{label}</Type>
    </Press>
  );
}

/** What narrows the search now, each taken off with one tap. */
function ActiveFilters({ filters, onChange }: { filters: FindFilters; onChange: (next: FindFilters) => void }) {
  const without = (list: string[], name: string) => list.filter((n) => n !== name);
  const day = (iso: string) => format(parseISO(iso), 'd MMM yyyy');
  const active: { label: string; next: FindFilters }[] = [
    ...filters.folders.map((n) => ({ label: `in ${n}`, next: { ...filters, folders: without(filters.folders, n) } })),
    ...filters.tags.map((n) => ({ label: `tagged ${n}`, next: { ...filters, tags: without(filters.tags, n) } })),
    ...filters.people.map((n) => ({ label: `with ${n}`, next: { ...filters, people: without(filters.people, n) } })),
    ...filters.has.map((h) => ({ label: HAS_NAMES[h], next: { ...filters, has: filters.has.filter((k) => k !== h) } })),
    ...(filters.after ? [{ label: `since ${day(filters.after)}`, next: { ...filters, after: null } }] : []),
    ...(filters.before ? [{ label: `before ${day(filters.before)}`, next: { ...filters, before: null } }] : []),
  ];
  if (active.length === 0) return null;
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingBottom: 8 }}>
      {active.map(({ label, next }) => (
        <Chip key={label} label={`${label} ×`} spoken={`Remove filter: ${label}`} onPress={() => onChange(next)} />
      ))}
      {active.length > 1 && <Chip label="Clear filters" onPress={() => onChange(noFilters())} />}
    </View>
  );
}
