import type { Recording } from '@immeld/core/contract/recordings';
import { type MarginLine, marginMarkdown } from '@immeld/core/formats/margin';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { LineEntry } from '../../ui/lineEntry';
import { useMarkKinds } from '../../ui/mark';
import { Empty, Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { SLIP_NAMES } from '../../ui/slipNames';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { titleOf } from '../tray/recordingRow';
import { sentenceAt } from './marking';
import { useReading } from './reading';
import { marginOf } from './rows';
import { MarginNote } from './marginNote';
import type { SoundPlayer } from './soundPlayer';
import { TodoSlip } from './todoSlip';
import { newLink, useMargin } from './useMargin';
import { useSlideChanges } from './useSlides';
import { useClosable } from '../../ui/useClosable';

type Entry = ReturnType<typeof marginOf>[number];

/** All that stands in the margin, chosen by kind, and taken along as it is chosen. */
export function MarginList({ recording, player }: { recording: Recording; player: SoundPlayer }) {
  const kinds = useMarkKinds();
  const [chosen, setChosen] = useState<string | null>(null);
  const margin = useMemo(() => marginOf(recording), [recording]);
  const nameOf = ({ todo, slip }: Entry): string =>
    todo ? kinds.of('to-do').label : slip!.mark ? kinds.of(slip!.mark).label : SLIP_NAMES[slip!.kind];
  const groupsOf = (entry: Entry): string[] => [
    nameOf(entry),
    ...(entry.slip?.assignee ? [`for ${entry.slip.assignee}`] : []),
  ];
  const counts = new Map<string, number>();
  for (const group of margin.flatMap(groupsOf)) counts.set(group, (counts.get(group) ?? 0) + 1);
  const isShown = chosen !== null && counts.has(chosen) ? chosen : null;
  const shown = margin.filter((entry) => isShown === null || groupsOf(entry).includes(isShown));
  const take = useTakeMargin(recording, nameOf);
  return (
    <View style={{ paddingTop: 12 }}>
      <AddToWhole recording={recording} />
      {counts.size > 1 && (
        <View
          role="radiogroup"
          aria-label="Filter the margin"
          style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 14 }}
        >
          {[['All', margin.length] as const, ...counts].map(([name, count]) => (
            <Kind
              key={name}
              name={name}
              count={count}
              isOn={(isShown ?? 'All') === name}
              onPress={() => setChosen(name === 'All' ? null : name)}
            />
          ))}
        </View>
      )}
      {margin.length > 0 && (
        <WordButton
          label={isShown ? `Export these ${shown.length}` : 'Export the margin'}
          onPress={() => take(shown, isShown)}
        />
      )}
      {shown.map(({ key, todo, slip }) =>
        todo ? (
          <TodoSlip key={key} todo={todo} player={player} />
        ) : (
          <MarginNote key={key} slip={slip!} player={player} />
        ),
      )}
      {margin.length === 0 && (
        <Empty title="Nothing in the margin yet">
          Marks, slips and pictures appear here, and to-dos found in what was said. Select some text to add something
          beside it.
        </Empty>
      )}
    </View>
  );
}

/** What belongs to no second: the agenda, the slides, the form that all of it was about. */
function AddToWhole({ recording }: { recording: Recording }) {
  const { put, putFile, putDeck, error } = useMargin(recording);
  const slides = useSlideChanges();
  const addSlides = async () => {
    const deck = await putDeck();
    if (deck) slides.mutate({ make: deck });
  };
  const [writing, setWriting] = useClosable<'note' | 'link' | null>(null);
  const [text, setText] = useState('');
  const begin = (kind: 'note' | 'link' | null) => {
    setWriting(kind);
    setText('');
  };
  const keep = () => {
    void put(writing === 'link' ? newLink(text) : { kind: 'note', text: text.trim() }, 'whole');
    begin(null);
  };
  return (
    <View role="group" aria-label="For the whole recording" style={{ paddingBottom: 8 }}>
      <Type size="small" tone="faint">
        For the whole recording
      </Type>
      {writing && (
        <LineEntry
          label={writing === 'link' ? 'Web address' : 'Write a slip'}
          action="Add"
          value={text}
          onChange={setText}
          onSubmit={keep}
          maxLength={writing === 'link' ? 2000 : 5000}
          autoFocus
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {writing ? (
          <WordButton label="Cancel" onPress={() => begin(null)} />
        ) : (
          <>
            <WordButton label="Add a picture or file" onPress={() => void putFile('whole')} />
            <WordButton label="Add slides" disabled={slides.isPending} onPress={() => void addSlides()} />
            <WordButton label="Add a link" onPress={() => begin('link')} />
            <WordButton label="Write a slip" onPress={() => begin('note')} />
          </>
        )}
      </View>
      {slides.isPending && (
        <Type size="tiny" tone="faint" role="status">
          Reading the slides.
        </Type>
      )}
      {(error ?? slides.error) && <Failure error={error ?? slides.error} />}
    </View>
  );
}

/** Saves entries of the margin as a Markdown file, each with the words beside which it stands. */
function useTakeMargin(recording: Recording, nameOf: (entry: Entry) => string) {
  const read = useReading();
  return (entries: readonly Entry[], group: string | null) => {
    const passages = recording.passages.map((p) => ({ ...p, words: read(p.words) }));
    const words = passages.flatMap((p) => p.words);
    const lines = entries.map((entry): MarginLine => {
      const { todo, slip } = entry;
      const isWhole = Boolean(slip?.isWhole);
      const startMs = Number.isFinite(entry.startMs) ? entry.startMs : 0;
      const marked = slip && slip.endMs !== null && slip.kind !== 'aside' ? slip : null;
      const beside = marked
        ? words.filter((w) => w.startMs >= marked.startMs && w.startMs < marked.endMs!).map((w) => w.text)
        : [sentenceAt({ passages }, startMs)];
      return {
        ...{
          startMs: isWhole ? null : startMs,
          name: nameOf(entry),
          text: todo?.text ?? slip!.file?.name ?? slip!.text,
        },
        words: isWhole || (slip && ['aside', 'seam', 'gap', 'consent'].includes(slip.kind)) ? '' : beside.join(' '),
        address: slip?.address ?? null,
        assignee: todo ? (todo.who === 'me' ? null : todo.who) : slip!.assignee,
        comments: slip?.comments.map((c) => c.text) ?? [],
        isDone: todo ? todo.isDone : null,
      };
    });
    const title = `${titleOf(recording)}, ${(group ?? 'margin').toLowerCase()}`;
    saveFile(new Blob([marginMarkdown(title, lines)], { type: 'text/markdown;charset=utf-8' }), `${title}.md`);
  };
}

type KindProps = { name: string; count: number; isOn: boolean; onPress: () => void };

function Kind({ name, count, isOn, onPress }: KindProps) {
  const colours = useColours();
  return (
    <Press role="radio" aria-checked={isOn} label={`${name}, ${count}`} onPress={onPress}>
      <Type
        size="small"
        isBold={isOn}
        style={{ borderBottomWidth: 2, borderBottomColor: isOn ? colours.petrol : 'transparent' }}
      >
        {name} {count}
      </Type>
    </Press>
  );
}
