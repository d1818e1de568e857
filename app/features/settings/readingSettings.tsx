import { View } from 'react-native';
import { NUMERAL_KINDS, type NumeralKind } from '@immeld/core/contract/numeralKinds';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { ParagraphChoice } from '../../ui/paragraphChoice';
import { Title, Type } from '../../ui/type';
import { Lengths } from './listeningSettings';

const PARAGRAPH_PAUSES_MS = [500, 1000, 2000, 3000, 5000];

const LABELS: Record<NumeralKind, [label: string, example: string]> = {
  numbers: ['Numbers from ten up', 'eleven thousand four hundred → 11,400'],
  ordinals: ['Ordinal numbers', 'the twenty-first → the 21st'],
  times: ['Times of day', 'half past two → 2:30'],
  dates: ['Dates', 'the twelfth of May → 12 May'],
  money: ['Money', 'four hundred pounds → £400'],
  percent: ['Percentages', 'five percent → 5%'],
  digits: ['Phone numbers and codes', 'oh one six double three → 01633'],
  units: ['Measurements', 'two and a half metres → 2.5 m'],
};

/** How the words of a recording are shown. */
export function ReadingSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const flip = (kind: NumeralKind, figures: readonly NumeralKind[]) =>
    change.mutate({ figures: NUMERAL_KINDS.filter((k) => (k === kind) !== figures.includes(k)) });
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>How text is shown</Title>
      <Type tone="faint">
        These choices apply on screen and in exports. The original words are saved underneath: turn a choice off, and
        they appear again.
      </Type>
      {change.error && <Failure error={change.error} />}
      {data && (
        <>
          {NUMERAL_KINDS.map((kind) => (
            <Choice
              key={kind}
              role="switch"
              label={LABELS[kind][0]}
              hint={LABELS[kind][1]}
              isOn={data.figures.includes(kind)}
              onPress={() => flip(kind, data.figures)}
            />
          ))}
          <Choice
            role="switch"
            label="Hide hesitations and repetitions"
            hint="um, you know, the the …"
            isOn={data.hidesFillers}
            onPress={() => change.mutate({ hidesFillers: !data.hidesFillers })}
          />
          <ParagraphChoice
            label="Paragraphs in new recordings"
            chosen={data.paragraphKind}
            onChoose={(paragraphKind) => change.mutate({ paragraphKind })}
          />
          {data.paragraphKind === 'pauses' && (
            <Lengths
              label="Start a new paragraph after a pause of"
              all={PARAGRAPH_PAUSES_MS}
              chosen={data.paragraphPauseMs}
              onChoose={(paragraphPauseMs) => change.mutate({ paragraphPauseMs })}
            />
          )}
        </>
      )}
    </View>
  );
}
