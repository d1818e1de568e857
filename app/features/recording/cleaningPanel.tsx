import { type Cleaning, isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import { useState } from 'react';
import { View } from 'react-native';
import { answerTo } from '../../api/call';
import { changeSettings, useSettings } from '../../settings/settings';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

const STEPS: { key: keyof Cleaning; label: string }[] = [
  { key: 'loudness', label: 'Even volume' },
  { key: 'noise', label: 'Reduce noise' },
  { key: 'lowCut', label: 'Remove rumble' },
  { key: 'highCut', label: 'Remove hiss' },
  { key: 'clicks', label: 'Remove clicks' },
];

const STRENGTHS = [
  { strength: 0, label: 'off' },
  { strength: 0.4, label: 'a little' },
  { strength: 0.7, label: 'medium' },
  { strength: 1, label: 'strong' },
];

/** What is done to the sound while listening, and the sound to take along so; the recording itself stays as it is. */
export function CleaningPanel({ recordingId, title }: { recordingId: string; title: string }) {
  const colours = useColours();
  const { cleaning } = useSettings();
  const [isMaking, setMaking] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const take = async () => {
    setMaking(true);
    setError(null);
    try {
      const answer = await answerTo('getCleanedSound', { params: { id: recordingId }, query: cleaning });
      saveFile(await answer.blob(), `${title}, cleaned up.m4a`);
    } catch (problem) {
      setError(problem as Error);
    } finally {
      setMaking(false);
    }
  };
  return (
    <View
      role="group"
      aria-label="Clean up audio"
      style={{ borderWidth: 1, borderColor: colours.rule, borderRadius: 4, paddingHorizontal: 12, paddingVertical: 6 }}
    >
      {STEPS.map(({ key, label }) => (
        <View key={key} role="radiogroup" aria-label={label} style={{ flexDirection: 'row', alignItems: 'center' }}>
          <Type size="small" style={{ flex: 1 }}>
            {label}
          </Type>
          {STRENGTHS.map(({ strength, label: name }) => {
            const isChosen = cleaning[key] === strength;
            return (
              <Press
                key={name}
                role="radio"
                aria-checked={isChosen}
                label={`${label}: ${name}`}
                onPress={() => changeSettings({ cleaning: { ...cleaning, [key]: strength } })}
                style={{ alignItems: 'center', minWidth: 52 }}
              >
                <Type
                  size="small"
                  isBold={isChosen}
                  tone={isChosen ? 'ink' : 'faint'}
                  style={{ borderBottomWidth: 2, borderBottomColor: isChosen ? colours.petrol : 'transparent' }}
                >
                  {name}
                </Type>
              </Press>
            );
          })}
        </View>
      ))}
      <Type size="tiny" tone="faint">
        Only changes what you hear on this device. The recording stays as it is.
      </Type>
      {error && <Failure error={error} />}
      {isCleaning(cleaning) && (
        <WordButton
          label={isMaking ? 'Cleaning up the audio…' : 'Export the cleaned-up audio'}
          disabled={isMaking}
          onPress={() => void take()}
        />
      )}
    </View>
  );
}
