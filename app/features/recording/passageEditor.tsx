import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { joinPassages, retimeWords, splitPassage } from '@immeld/core/transcript/edit';
import { prepareNames, similarNames } from '@immeld/core/speech/names/nameCandidates';
import { spokenWords } from '@immeld/core/transcript/inverseTextNormalisation';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { useSettings } from '../../settings/settings';
import { WordButton } from '../../ui/press';
import { announce } from '../../ui/announcer';
import { useIsWide } from '../../ui/shell';
import { FONTS, SIZES, useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useCorrecting, useDesk } from './correcting';
import { countCorrections, typedNames } from './repeatedCorrections';
import { readIndex, useReading } from './reading';
import { type SoundPlayer, usePlayer } from './soundPlayer';

const BACK_MS = 2000;

const VISITING_KEYS =
  'D goes to the next doubtful word, Shift D to the previous one. Enter confirms the word. Backspace deletes it, so that you can type another. Escape puts it back.';
const TYPING_KEYS =
  'Enter splits the passage. Backspace at the beginning merges it with the previous one. Ctrl Enter plays from the cursor. Ctrl ↓ goes to the next doubtful word. Alt 1 inserts the first suggested word. Escape stops editing; your text is saved.';

/** Number of the word in which the caret stands, or that begins after it. */
const wordAtCaret = (text: string, caret: number): number =>
  text.slice(0, caret).split(/\s+/u).filter(Boolean).length - (/\S$/u.test(text.slice(0, caret)) ? 1 : 0);

/** Where a word begins and ends in a text, without the marks around it: these mostly stay. */
function lettersOf(words: Passage['words'], word: number): [from: number, to: number] {
  const from = words.slice(0, word).reduce((sum, w) => sum + w.text.length + 1, 0);
  const text = words[word]?.text ?? '';
  const before = /^[^\p{L}\p{N}]*/u.exec(text)![0].length;
  const after = /(?<![^\p{L}\p{N}])[^\p{L}\p{N}]*$/u.exec(text)![0].length;
  return before + after < text.length ? [from + before, from + text.length - after] : [from, from + text.length];
}

type EditorProps = { passage: Passage; index: number; word: number | null; player: SoundPlayer };

/** A passage open for typing, with the sound under the fingers. What is typed is kept when it is left. */
export function PassageEditor({ passage, index, word, player }: EditorProps) {
  const colours = useColours();
  const isWide = useIsWide();
  const { desk, opened, open, openDoubtful } = useCorrecting();
  const { passages } = useDesk(desk);
  const isPlaying = usePlayer(player, (s) => s.isPlaying);
  const field = useRef<HTMLTextAreaElement>(null);
  const { data } = useSharedSettings();
  const { settings: changeSettings } = useChanges();
  const show = useUndoBar();
  const { textScale } = useSettings();
  const read = useReading();
  const [text, setText] = useState(() => passageText({ words: read(passage.words) }));
  const typed = useRef(text);
  typed.current = text;
  /** The passage as it was opened, or as it was last saved from here. */
  const base = useRef(passage);
  const isLeft = useRef(false);
  /** The word was gone to as a doubtful one, and nothing has been done with it yet. */
  const isVisiting = useRef(false);
  /** What stood there when the word was gone to. */
  const visited = useRef(text);

  useEffect(() => {
    isVisiting.current = opened?.isVisited ?? false;
    visited.current = typed.current;
    const area = field.current!;
    area.focus();
    if (word === null) area.setSelectionRange(area.value.length, area.value.length);
    else area.setSelectionRange(...lettersOf(read(passage.words), readIndex(read(passage.words), word)));
    // Only when another word is opened: typing moves the caret by itself.
  }, [word, index]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    const area = field.current!;
    area.style.height = 'auto';
    area.style.height = `${area.scrollHeight}px`;
  }, [text]);

  /** The words as they were read when typing began: what stays of them is still what was said. */
  const shown = useRef(read(passage.words));
  const retyped = () => retimeWords(shown.current, typed.current, base.current);
  const changed = (): Passage =>
    typed.current.trim() === passageText({ words: shown.current })
      ? base.current
      : { ...base.current, words: spokenWords(retyped()) };
  /** What was put right twice is offered for the list of names and terms. */
  const offerNames = (before: Passage, now: Passage) => {
    const listed = data?.names ?? [];
    const texts = (passage: Passage) => passage.words.map((w) => w.text);
    const [name] = countCorrections(
      typedNames(texts(before), texts(now)),
      listed.map((n) => n.text),
      localStorage,
    );
    if (!name || !data) return;
    const add = () => changeSettings.mutate({ names: [...listed, { text: name, soundsLike: [] }] });
    show(`You corrected ${name} twice. Add it to your names and terms?`, add, 'Add');
  };
  /** @returns whether the passage stands as it was typed */
  const save = (): boolean => {
    const now = changed();
    if (now === base.current) return true;
    const before = base.current;
    shown.current = retyped();
    base.current = now;
    offerNames(before, now);
    return desk.correct(index, before, now);
  };
  const leave = () => {
    isLeft.current = true;
    save();
    open(null);
  };
  const latestSave = useRef(save);
  latestSave.current = save;
  useEffect(() => {
    // A row that is scrolled away, a page that is left or closed: what was typed is kept all the same.
    const keepNow = () => void latestSave.current();
    window.addEventListener('pagehide', keepNow);
    return () => {
      window.removeEventListener('pagehide', keepNow);
      if (!isLeft.current) keepNow();
    };
  }, []);
  const playFrom = (caret: number) => {
    const at = retyped()[wordAtCaret(typed.current, caret)];
    if (at) player.seek(at.startMs, true);
  };
  const split = (caret: number) => {
    if (!save()) return leave();
    const now = base.current;
    const words = typed.current.slice(0, caret).split(/\s+/u).filter(Boolean).length;
    const at = spokenWords(shown.current.slice(0, words)).length;
    if (at <= 0 || at >= now.words.length) return;
    isLeft.current = true;
    desk.change(index, 1, splitPassage(now, at));
    open({ passage: index + 1, word: 0 });
  };
  const join = () => {
    const before = passages[index - 1];
    if (!before) return;
    if (!save()) return leave();
    isLeft.current = true;
    desk.change(index - 1, 2, [joinPassages(before, base.current)]);
    open({ passage: index - 1, word: before.words.length });
  };
  /** The word is right as it stands: it is not asked about again. */
  const confirm = () => {
    const words = base.current.words.map((w, i) => (i === word ? { ...w, confidence: 1, isTyped: true } : w));
    const now = { ...base.current, words };
    desk.correct(index, base.current, now);
    base.current = now;
    shown.current = read(words);
    openDoubtful();
  };
  /** Puts back what stood there when the word was gone to. */
  const giveUp = () => {
    typed.current = visited.current;
    leave();
  };
  /** @returns whether a key has been dealt with: of a word that is only visited, letters do not take the place */
  const pressWhileVisiting = ({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean => {
    if (!isVisiting.current || ctrlKey || metaKey || altKey) return false;
    if (key.toLowerCase() === 'd') openDoubtful(shiftKey);
    else if (key === 'Enter') confirm();
    else if (key.length === 1) announce('Press Backspace to type in the place of this word.');
    else {
      if (key !== 'Shift') isVisiting.current = false;
      return false;
    }
    return true;
  };
  const press = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (pressWhileVisiting(event)) {
      event.stopPropagation();
      event.preventDefault();
      return;
    }
    const { selectionStart, selectionEnd } = event.currentTarget;
    const withControl = event.ctrlKey || event.metaKey;
    const act =
      event.key === 'Escape'
        ? opened?.isVisited
          ? giveUp
          : leave
        : event.key === 'Enter' && withControl && event.shiftKey
          ? () => player.skip(-BACK_MS)
          : event.key === 'Enter' && withControl
            ? () => (isPlaying ? player.toggle() : playFrom(selectionStart))
            : event.key === 'Enter'
              ? () => split(selectionStart)
              : event.key === 'Backspace' && selectionStart === 0 && selectionEnd === 0
                ? join
                : event.key === 'ArrowDown' && withControl
                  ? next
                  : event.altKey && offered[Number(event.key) - 1]
                    ? () => put(offered[Number(event.key) - 1]!)
                    : null;
    event.stopPropagation();
    if (!act) return;
    event.preventDefault();
    act();
  };
  const next = () => {
    save();
    openDoubtful();
  };
  const names = useMemo(() => prepareNames(data?.names ?? []), [data]);
  const selectedWord = word === null ? '' : (passage.words[word]?.text ?? '');
  const others = word === null ? undefined : passage.words[word]?.others;
  /** Names that sound like the word that was opened, and what else the recogniser thought of. */
  const offered = useMemo(
    () => [...new Set([...(selectedWord ? similarNames(selectedWord, names) : []), ...(others ?? [])])].slice(0, 9),
    [selectedWord, names, others],
  );
  const put = (name: string) => {
    const { selectionStart: from, selectionEnd: to, value } = field.current!;
    setText(value.slice(0, from) + name + value.slice(to));
    requestAnimationFrame(() => field.current?.setSelectionRange(from, from + name.length));
  };
  const keep = { onPointerDown: (event: { preventDefault: () => void }) => event.preventDefault() } as object;
  return (
    <View style={{ paddingVertical: 4 }}>
      <textarea
        ref={field}
        value={text}
        aria-label="Text of this passage"
        onChange={(event) => setText(event.target.value.replace(/\n/g, ' '))}
        onKeyDown={press}
        onPointerDown={() => (isVisiting.current = false)}
        onPaste={() => (isVisiting.current = false)}
        onBlur={(event) => {
          // A press on the buttons below is no goodbye.
          if (!event.relatedTarget?.closest('[data-editor]')) leave();
        }}
        spellCheck
        style={{
          ...{ width: '100%', boxSizing: 'border-box', resize: 'none', overflow: 'hidden', padding: '6px 8px' },
          ...{ fontFamily: FONTS.text, fontSize: SIZES.body * textScale, lineHeight: 1.6, color: colours.ink },
          ...{
            background: colours.sheet,
            border: `1px solid ${colours.petrol}`,
            borderRadius: 4,
            outlineColor: colours.petrol,
          },
        }}
      />
      <View
        {...({ dataSet: { editor: 'true' } } as object)}
        style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}
      >
        {offered.map((name, i) => (
          <WordButton
            {...keep}
            key={name}
            label={name}
            aria-label={`Insert ${name}`}
            aria-keyshortcuts={`Alt+${i + 1}`}
            isBold
            onPress={() => put(name)}
          />
        ))}
        <WordButton
          {...keep}
          label={isPlaying ? 'Pause' : 'Play from here'}
          onPress={() => (isPlaying ? player.toggle() : playFrom(field.current!.selectionStart))}
        />
        <WordButton {...keep} label="Back 2 s" onPress={() => player.skip(-BACK_MS)} />
        {opened?.isVisited && <WordButton {...keep} label="This word is right" onPress={confirm} />}
        <WordButton {...keep} label="Next doubtful word" onPress={next} />
        <WordButton {...keep} label="Done" isBold onPress={leave} />
      </View>
      {isWide && (
        <Type size="tiny" tone="faint">
          {opened?.isVisited ? VISITING_KEYS : TYPING_KEYS}
        </Type>
      )}
    </View>
  );
}
