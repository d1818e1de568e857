import { QUALITIES, type Quality } from '@immeld/core/speech/packs';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useOlderTranscripts, useSharedSettings } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { Title, Type } from '../../ui/type';
import { workInWords } from './workInWords';

const NAMES: Record<Quality, string> = { quick: 'Quick', usual: 'Fewer mistakes' };

/** With how much care recordings are transcribed, and whether older ones are brought up to it. */
export function TranscriptionSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const { data: older } = useOlderTranscripts();
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Transcription</Title>
      {change.error && <Failure error={change.error} />}
      {data && (
        <>
          <OneOf
            label="New recordings"
            options={QUALITIES}
            nameOf={(quality) => NAMES[quality]}
            chosen={data.quality}
            onChoose={(quality) => change.mutate({ quality })}
          />
          <Type tone="faint" size="tiny">
            “Fewer mistakes” takes about one and a half times as long. Words that appear while you speak come from the
            quick model.
          </Type>
          {older && older.count > 0 && (
            <Choice
              role="switch"
              label={`Transcribe ${older.count} older ${older.count === 1 ? 'recording' : 'recordings'} again`}
              hint={`The quick model transcribed them. This takes about ${workInWords(older.soundMs)}, in the background. Text you corrected stays.`}
              isOn={older.isWorking}
              onPress={() => change.mutate({ improvesOlder: !older.isWorking })}
            />
          )}
        </>
      )}
    </View>
  );
}
