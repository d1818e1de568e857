import { createContext, useContext, useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Recording } from '@immeld/core/contract/recordings';
import { TODO_MARK } from '@immeld/core/contract/markKinds';
import type { MarkKind, Slip } from '@immeld/core/contract/slips';
import { selectionDocument } from '@immeld/core/exports/selectionDocument';
import { documentBody } from '@immeld/core/exports/documentHtml';
import { documentMarkdown } from '@immeld/core/exports/documentMarkdown';
import { documentText } from '@immeld/core/exports/documentText';
import { passageText } from '@immeld/core/transcript/manuscript';
import { withoutEnd } from '@immeld/core/language/words';
import { reassignRange } from '@immeld/core/transcript/alignPassages';
import { LineEntry } from '../../ui/lineEntry';
import { copyFormatted, copyText } from '../../ui/clipboard';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { useIsWide } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { titleOf } from '../tray/recordingRow';
import { useCorrecting } from './correcting';
import { MeaningPanel } from './meaningPanel';
import { useQuoteIntoNote } from './quoteInto';
import { newLink, useMargin } from './useMargin';
import { type Selected, latest, selectedWords, useSelectedWords } from './selectedWords';
import type { SoundPlayer } from './soundPlayer';
import { WhoPanel } from './speakers';
import { useClosable } from '../../ui/useClosable';

/** The marks that colour words. */
export const MarksContext = createContext<readonly Slip[]>([]);
export const useMarks = (): readonly Slip[] => useContext(MarksContext);

export const wordMarksOf = (slips: readonly Slip[]): Slip[] => slips.filter((s) => s.mark !== null && s.endMs !== null);

/** More words are no term. */
const MAX_LOOKED_UP = 4;

type BarProps = { recording: Recording; player: SoundPlayer };

/** Appears at selected words: mark them, write a slip, lift a to-do, lay a picture beside them. */
export function MarkingBar({ recording, player }: BarProps) {
  const colours = useColours();
  const isWide = useIsWide();
  const { selected, clear } = useSelectedWords();
  const [writing, setWriting] = useClosable<{ kind: 'note' | 'link'; at: Selected } | null>(null);
  const [text, setText] = useState('');
  const { put, putFile, lift, error } = useMargin(recording);
  const { offered } = useMarkKinds();
  const [naming, setNaming] = useClosable<Selected | null>(null);
  const [looking, setLooking] = useClosable<Selected | null>(null);
  const { desk } = useCorrecting();
  const show = useUndoBar();
  const quote = useQuoteIntoNote();
  const at = naming ?? looking ?? writing?.at ?? selected;
  const words = useMemo(() => recording.passages.flatMap((p) => p.words), [recording.passages]);

  const done = () => {
    clear();
    setWriting(null);
    setNaming(null);
    setLooking(null);
    setText('');
  };
  const name = (speaker: string) => {
    const given = naming && reassignRange(desk.state.passages, naming, speaker);
    if (!given) return;
    desk.change(given.at, given.count, given.added);
    show(`Assigned to ${speaker}.`, () => desk.undo());
  };
  const begin = (kind: 'note' | 'link', where: Selected) => setWriting({ kind, at: where });
  const mark = (kind: MarkKind, where: { startMs: number; endMs: number }) => {
    void put({ kind: 'mark', mark: kind, text: '' }, where);
    done();
  };
  const toDo = (where: Pick<Selected, 'text' | 'startMs'>) => {
    void lift(where.text, where.startMs);
    done();
  };
  const copy = ({ parts }: Selected) => {
    const sheet = selectionDocument(parts);
    const notCopied = () => show('The browser blocked copying. Use the browser’s own Copy command instead.');
    const asMarkdown = () => {
      copyText(documentMarkdown(sheet).trimEnd()).then(() => show('Text copied as Markdown.'), notCopied);
    };
    copyFormatted(Promise.resolve({ plain: documentText(sheet).trimEnd(), html: documentBody(sheet) }), true).then(
      () => show('Text copied.', asMarkdown, 'Copy as Markdown'),
      notCopied,
    );
    done();
  };
  const attach = async (where: Selected) => {
    if (await putFile(where)) done();
  };

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement).closest('input, textarea') || event.ctrlKey || event.metaKey || event.altKey)
        return;
      const kind = offered[Number(event.key) - 1]?.id;
      const isLift = event.key.toLowerCase() === 'l' && !event.shiftKey;
      if (!kind && !isLift) return;
      const { timeMs } = player.getState();
      const playing = words.findLast((w) => w.startMs <= timeMs) ?? words[0];
      const chosen = selectedWords();
      const where = chosen ?? playing;
      if (!where) return;
      event.preventDefault();
      if (kind) mark(kind, where);
      // One word is no to-do: without a selection it is the sentence of the sound.
      else toDo(chosen ?? { startMs: where.startMs, text: sentenceAt(recording, where.startMs) });
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });

  if (!at) return error ? <Failure error={error} /> : null;
  const hold = { onPointerDown: (event: { preventDefault: () => void }) => event.preventDefault() } as object;
  const below = at.bottom + 10;
  const place = isWide
    ? {
        top: below + 120 < window.innerHeight ? below : Math.max(8, at.top - 124),
        left: Math.max(8, Math.min(at.left, window.innerWidth - 480)),
      }
    : // Above the bar that offers to undo.
      { left: 8, right: 8, bottom: 208 };
  return (
    <View
      role="toolbar"
      aria-label="Actions for the selected text"
      {...({ dataSet: { choices: 'true' } } as object)}
      style={[
        { position: 'fixed', zIndex: 20, ...place } as object,
        {
          ...{ borderWidth: 1, borderColor: colours.ink, borderRadius: 6, backgroundColor: colours.sheet },
          ...{ padding: 6, gap: 4, ...(isWide ? { maxWidth: 480 } : {}) },
        },
      ]}
    >
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4, ...(isWide ? { width: 400 } : {}) }}>
        {offered
          .filter(({ id }) => id !== TODO_MARK)
          .map(({ id, label }) => (
            <Press
              key={id}
              {...hold}
              label={`Mark: ${label}`}
              onPress={() => mark(id, latest(at))}
              style={{
                ...(isWide ? {} : { flex: 1 }),
                alignItems: 'center',
                gap: 4,
                paddingHorizontal: 10,
                paddingVertical: 6,
              }}
            >
              <MarkShape kind={id} />
              <Type size="tiny" numberOfLines={1}>
                {label}
              </Type>
            </Press>
          ))}
        <Press
          {...hold}
          label="Make a to-do"
          onPress={() => toDo(latest(at))}
          style={{
            ...(isWide ? {} : { flex: 1 }),
            alignItems: 'center',
            gap: 4,
            paddingHorizontal: 10,
            paddingVertical: 6,
          }}
        >
          <MarkShape kind={TODO_MARK} />
          <Type size="tiny" numberOfLines={1}>
            To-do
          </Type>
        </Press>
      </View>
      {looking && (
        <MeaningPanel
          word={withoutEnd(looking.text)}
          context={`${titleOf(recording)} ${textAround(recording, looking.startMs)}`}
          onKeep={(words) => {
            void put({ kind: 'note', text: words }, looking);
            done();
          }}
          onClose={done}
        />
      )}
      {naming && <WhoPanel speaker={null} passageIds={[]} onName={name} onClose={done} />}
      {writing ? (
        <LineEntry
          label={writing.kind === 'link' ? 'Web address' : 'Write a slip'}
          action="Add"
          value={text}
          onChange={setText}
          onSubmit={() => {
            void put(writing.kind === 'link' ? newLink(text) : { kind: 'note', text: text.trim() }, writing.at);
            done();
          }}
          maxLength={5000}
          autoFocus
        />
      ) : null}
      {!naming && !looking && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', paddingHorizontal: 8 }}>
          {!writing && <WordButton {...hold} label="Write a slip" onPress={() => begin('note', latest(at))} />}
          {!writing && <WordButton {...hold} label="Add a link" onPress={() => begin('link', latest(at))} />}
          <WordButton {...hold} label="Add a picture or file" onPress={() => attach(latest(at))} />
          {!writing && at.text.split(/\s+/).length <= MAX_LOOKED_UP && (
            <WordButton {...hold} label="Meaning" onPress={() => setLooking(latest(at))} />
          )}
          <WordButton {...hold} label="Copy" onPress={() => copy(latest(at))} />
          <WordButton {...hold} label="Play" onPress={() => player.playSpan(at.startMs, at.endMs)} />
          <WordButton {...hold} label="Repeat" onPress={() => player.repeat({ fromMs: at.startMs, toMs: at.endMs })} />
          {!writing && quote && (
            <WordButton
              {...hold}
              label="Add to a note"
              onPress={() => {
                const { text: words, startMs } = latest(at);
                quote({ text: words, startMs: Math.round(startMs) });
                done();
              }}
            />
          )}
          {!writing && <WordButton {...hold} label="Assign speaker" onPress={() => setNaming(latest(at))} />}
          {writing && <WordButton label="Cancel" onPress={done} />}
        </View>
      )}
    </View>
  );
}

/** The sentence that is said at a time, as text. */
export function sentenceAt({ passages }: Pick<Recording, 'passages'>, timeMs: number): string {
  const words = passages.flatMap((p) => p.words);
  const at = Math.max(
    0,
    words.findLastIndex((w) => w.startMs <= timeMs),
  );
  const ends = (i: number) => /[.?!…]["'”’)]*$/.test(words[i]!.text);
  let from = at;
  while (from > 0 && !ends(from - 1)) from--;
  let to = at;
  while (to + 1 < words.length && !ends(to)) to++;
  return words
    .slice(from, to + 1)
    .map((w) => w.text)
    .join(' ');
}

/** So many passages on either side say what a word is about. */
const NEAR_PASSAGES = 2;

/** What is said around a time, as text. */
function textAround({ passages }: Pick<Recording, 'passages'>, timeMs: number): string {
  const at = passages.findLastIndex((p) => p.startMs <= timeMs);
  const near = passages.slice(Math.max(0, at - NEAR_PASSAGES), at + NEAR_PASSAGES + 1);
  return near.map(passageText).join(' ');
}
