import { memo } from 'react';
import { View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { wordAt } from './litWord';
import { type SoundPlayer, usePlayer } from './soundPlayer';

/** Words surer than this are not marked. */
const DOUBTFUL_BELOW = 0.5;

type Word = Passage['words'][number];
type ParagraphProps = { passages: readonly Passage[]; player: SoundPlayer };

/** A paragraph of the manuscript: a press on any word plays from it; the word being said is lit. */
export const Paragraph = memo(function Paragraph({ passages, player }: ParagraphProps) {
  const words = passages.flatMap((p) => p.words);
  const startMs = words[0]?.startMs ?? 0;
  const endMs = (words.at(-1)?.endMs ?? 0) + 400;
  const lit = usePlayer(player, (s) => (s.timeMs === 0 && !s.isPlaying ? -1 : wordAt(words, s.timeMs, endMs)));
  const speaker = passages[0]!.speaker;
  const playFrom = (event: { target: unknown }) => {
    const at = (event.target as HTMLElement).dataset?.['word'];
    if (at !== undefined) player.seek(words[Number(at)]!.startMs, true);
  };
  return (
    <View
      role="article"
      aria-label={[speaker, clockTime(startMs)].filter(Boolean).join(', ')}
      style={{ paddingBottom: 10 }}
    >
      <Press
        label={`Play from ${clockTime(startMs)}`}
        onPress={() => player.seek(startMs, true)}
        style={{ alignSelf: 'flex-start', minHeight: 32 }}
      >
        <Type size="tiny" tone="faint">
          {[speaker, clockTime(startMs)].filter(Boolean).join('  ')}
        </Type>
      </Press>
      <Type size="body" face="text" {...({ onClick: playFrom } as object)}>
        {words.map((word, i) => (
          <WordMark key={i} word={word} index={i} isLit={i === lit} />
        ))}
      </Type>
    </View>
  );
});

const WordMark = memo(function WordMark({ word, index, isLit }: { word: Word; index: number; isLit: boolean }) {
  const colours = useColours();
  const isDoubtful = word.confidence < DOUBTFUL_BELOW;
  return (
    <>
      <Type
        size="body"
        face="text"
        {...({ dataSet: { word: index, ...(isLit ? { lit: 'true' } : {}) } } as object)}
        style={[
          { cursor: 'pointer' } as object,
          isDoubtful && {
            textDecorationLine: 'underline',
            textDecorationStyle: 'dotted',
            textDecorationColor: colours.rowan,
          },
          isLit && ({ backgroundColor: colours.lit, boxShadow: `0 3px 0 ${colours.petrol}` } as object),
        ]}
      >
        {word.text}
      </Type>{' '}
    </>
  );
});
