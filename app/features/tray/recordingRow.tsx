import type { RecordingCard } from '@immeld/core/contract/recordings';
import { useRouter } from 'expo-router';
import { memo } from 'react';
import { View } from 'react-native';
import { lengthName, spokenName, whenSaid } from '../../ui/dates';
import { Tick } from '../../ui/pencil';
import { Press } from '../../ui/press';
import { Strip } from '../../ui/strip';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

/** What a recording is called: by its person, as suggested, by when it was spoken, or by the file that was imported. */
export const titleOf = (r: Pick<RecordingCard, 'title' | 'suggestion' | 'fileName' | 'source' | 'startedAt'>): string =>
  r.title ?? r.suggestion.title ?? (r.source === 'speak' ? spokenName(r.startedAt) : r.fileName);

const STATE_WORDS: Partial<Record<RecordingCard['state'], string>> = {
  waiting: 'waiting to be transcribed',
  recognising: 'being transcribed',
  failed: 'could not be transcribed',
  cancelled: 'transcription cancelled',
};

/** When, how long, and what is the matter, in one line. */
export function metaOf(r: RecordingCard): string {
  const words = r.draft === 'device' ? 'words from this device' : null;
  return [whenSaid(r.startedAt), r.durationMs ? lengthName(r.durationMs) : null, words, STATE_WORDS[r.state]]
    .filter(Boolean)
    .join(' · ');
}

type RowProps = {
  recording: RecordingCard;
  /** Null while nothing is being chosen. */
  isChosen?: boolean | null;
  onChoose?: () => void;
};

/** A recording as one line of a list; while things are chosen, a press chooses it. */
export const RecordingRow = memo(function RecordingRow({ recording, isChosen = null, onChoose }: RowProps) {
  const colours = useColours();
  const router = useRouter();
  const isChoosing = isChosen !== null;
  return (
    <Press
      label={`${titleOf(recording)}, ${metaOf(recording)}`}
      role={isChoosing ? 'checkbox' : 'link'}
      {...(isChoosing ? { 'aria-checked': isChosen } : {})}
      onPress={() =>
        isChoosing ? onChoose?.() : router.push({ pathname: '/recordings/[id]', params: { id: recording.id } })
      }
      style={{
        ...{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 12 },
        ...{ flexDirection: 'row', alignItems: 'center', gap: 14 },
      }}
    >
      {isChoosing && <Tick isOn={isChosen} />}
      <View style={{ flex: 1, gap: 4 }}>
        <Type size="body" face="text" numberOfLines={2}>
          {titleOf(recording)}
        </Type>
        <Type size="tiny" tone="faint" numberOfLines={1}>
          {[recording.isFavourite ? 'favourite' : null, metaOf(recording), ...recording.tags]
            .filter(Boolean)
            .join(' · ')}
        </Type>
        <View style={{ paddingTop: 2 }}>
          <Strip peaks={recording.strip} height={22} label="" />
        </View>
      </View>
    </Press>
  );
});
