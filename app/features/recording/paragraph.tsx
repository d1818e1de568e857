import { memo } from 'react';
import { View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { Press } from '../../ui/press';
import { useMarkKinds } from '../../ui/mark';
import { SpeakerMark } from '../../ui/speakerMark';
import { useSettings } from '../../settings/settings';
import { SIZES, useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { isDoubtful, useCorrecting } from './correcting';
import { useMarks } from './marking';
import { wordAt } from './litWord';
import { PassageEditor } from './passageEditor';
import { spokenIndex, useReading } from './reading';
import { useSpeakers, WhoPanel } from './speakers';
import { type SoundPlayer, usePlayer } from './soundPlayer';
import { useClosable } from '../../ui/useClosable';

/** What stands above a paragraph can be pressed beyond its line, so that the lines stay close. */
const BESIDE = { marginVertical: -8 };

/** Size and line height of the manuscript at a scale. */
const textSize = (scale: number) => ({
  fontSize: Math.round(SIZES.body * scale),
  lineHeight: Math.round(SIZES.body * scale * 1.6),
});

type Word = Passage['words'][number];
type ParagraphProps = { passages: readonly Passage[]; first: number; player: SoundPlayer };

/** A paragraph of the manuscript: a press on any word plays from it, a second one opens its passage for typing. */
export const Paragraph = memo(function Paragraph({ passages, first, player }: ParagraphProps) {
  const { desk, opened, open } = useCorrecting();
  const { speakers } = useSpeakers();
  const [isAsking, setAsking] = useClosable(false);
  const startMs = passages[0]!.words[0]?.startMs ?? passages[0]!.startMs;
  const speaker = passages[0]!.speaker;
  const number = speakers.findIndex((s) => s.name === speaker);
  const ids = isAsking ? desk.idsOf(first, passages.length) : null;
  const inHere = opened !== null && opened.passage >= first && opened.passage < first + passages.length;
  const groups = inHere ? around(passages, opened.passage - first) : [passages];
  const openAtSound = () => {
    const { timeMs } = player.getState();
    const at = passages.findLastIndex((p) => p.startMs <= timeMs);
    open({ passage: first + Math.max(0, timeMs < (passages.at(-1)?.endMs ?? 0) ? at : 0), word: null });
  };
  return (
    <View
      role="article"
      aria-label={[speaker, clockTime(startMs)].filter(Boolean).join(', ')}
      {...({ dataSet: { speaker: speaker ?? '' } } as object)}
      style={{ paddingBottom: 10 }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Press
          label={`Play from ${clockTime(startMs)}`}
          onPress={() => player.seek(startMs, true)}
          style={{ alignSelf: 'flex-start', ...BESIDE }}
        >
          <Type size="tiny" tone="faint">
            {clockTime(startMs)}
          </Type>
        </Press>
        {speaker !== null && (
          <Press
            label={`Speaker: ${speaker}. Change`}
            aria-expanded={isAsking}
            onPress={() => setAsking(!isAsking)}
            style={{ flexDirection: 'row', alignItems: 'center', gap: 6, flexShrink: 1, ...BESIDE }}
          >
            {number >= 0 && <SpeakerMark index={number} />}
            <Type size="tiny" isBold numberOfLines={1}>
              {speaker}
            </Type>
          </Press>
        )}
        <View style={{ flex: 1 }} />
        {!inHere && (
          <Press label={`Edit the text from ${clockTime(startMs)}`} onPress={openAtSound} style={BESIDE}>
            <Type size="tiny" tone="faint" style={{ textAlign: 'right', textDecorationLine: 'underline' }}>
              Edit
            </Type>
          </Press>
        )}
      </View>
      {isAsking &&
        (ids ? (
          <WhoPanel speaker={speaker} passageIds={ids} onClose={() => setAsking(false)} />
        ) : (
          <Type size="tiny" tone="faint" role="status">
            Saving your corrections. One moment, please.
          </Type>
        ))}
      {groups.map((group) => {
        const at = first + passages.indexOf(group[0]!);
        return inHere && at === opened.passage ? (
          <PassageEditor key={`editor-${at}`} passage={group[0]!} index={at} word={opened.word} player={player} />
        ) : (
          <Words key={at} passages={group} first={at} player={player} />
        );
      })}
    </View>
  );
});

/** Passages before the open one, the open one, those after it. */
const around = (passages: readonly Passage[], at: number): (readonly Passage[])[] =>
  [passages.slice(0, at), passages.slice(at, at + 1), passages.slice(at + 1)].filter((group) => group.length);

function Words({ passages, first, player }: ParagraphProps) {
  const { open } = useCorrecting();
  const read = useReading();
  const { textScale } = useSettings();
  const shown = passages.map((p) => read(p.words));
  const words = shown.flat();
  const endMs = (words.at(-1)?.endMs ?? 0) + 400;
  const lit = usePlayer(player, (s) => (s.timeMs === 0 && !s.isPlaying ? -1 : wordAt(words, s.timeMs, endMs)));
  const pressed = (event: { target: unknown }): number | null => {
    const at = (event.target as HTMLElement).dataset?.['word'];
    return at === undefined ? null : Number(at);
  };
  const playFrom = (event: { target: unknown }) => {
    const at = pressed(event);
    if (at !== null) player.seek(words[at]!.startMs, true);
  };
  const correct = (event: { target: unknown }) => {
    let word = pressed(event);
    if (word === null) return;
    for (const [i, passage] of shown.entries()) {
      if (word < passage.length) return open({ passage: first + i, word: spokenIndex(passage, word) });
      word -= passage.length;
    }
  };
  const press = (event: { target: unknown; detail?: number }) => {
    if (event.detail === 2) return correct(event);
    // The end of a drag over words selects them and plays nothing.
    if (window.getSelection()?.isCollapsed ?? true) playFrom(event);
  };
  const marks = useMarks();
  const kinds = useMarkKinds();
  const colours = useColours();
  /** Colour of the mark that stands on a word. */
  const toneOf = (word: Word): string | null => {
    const mark = marks.find((m) => m.startMs <= word.startMs && word.startMs < m.endMs!)?.mark;
    return mark ? colours[kinds.of(mark).tone] : null;
  };
  return (
    <Type size="body" face="text" style={textSize(textScale)} {...({ onClick: press } as object)}>
      {words.map((word, i) => (
        <WordMark
          key={i}
          word={word}
          index={i}
          isLit={i === lit}
          isUnsure={isDoubtful(word)}
          tone={toneOf(word)}
          scale={textScale}
        />
      ))}
    </Type>
  );
}

type WordMarkProps = {
  word: Word;
  index: number;
  isLit: boolean;
  isUnsure: boolean;
  tone: string | null;
  scale: number;
};

const WordMark = memo(function WordMark({ word, index, isLit, isUnsure, tone, scale }: WordMarkProps) {
  const colours = useColours();
  return (
    <>
      <Type
        size="body"
        face="text"
        {...({
          dataSet: { word: index, from: word.startMs, to: word.endMs, ...(isLit ? { lit: 'true' } : {}) },
        } as object)}
        style={[
          { cursor: 'pointer', ...textSize(scale) } as object,
          isUnsure && {
            textDecorationLine: 'underline',
            textDecorationStyle: 'dotted',
            textDecorationColor: colours.rowan,
          },
          tone !== null && ({ backgroundColor: `${tone}26`, boxShadow: `0 2px 0 ${tone}` } as object),
          isLit && ({ backgroundColor: colours.lit, boxShadow: `0 3px 0 ${colours.petrol}` } as object),
        ]}
      >
        {word.text}
      </Type>{' '}
    </>
  );
});
