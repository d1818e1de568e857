import type { ParagraphKind } from '@immeld/core/contract/paragraphs';
import { View } from 'react-native';
import { Press } from './press';
import { useColours } from './theme';
import { Type } from './type';

const NAMES: Record<ParagraphKind, string> = {
  one: 'one',
  few: 'few',
  usual: 'normal',
  many: 'many',
  pauses: 'at pauses',
};

type ChoiceProps = {
  label: string;
  chosen: ParagraphKind | null;
  onChoose: (kind: ParagraphKind) => void;
};

/** How many paragraphs. */
export function ParagraphChoice({ label, chosen, onChoose }: ChoiceProps) {
  const colours = useColours();
  return (
    <View role="radiogroup" aria-label={label} style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
      <Type style={{ width: '100%' }}>{label}</Type>
      {(Object.keys(NAMES) as ParagraphKind[]).map((kind) => (
        <Press
          key={kind}
          role="radio"
          aria-checked={kind === chosen}
          label={`${label}: ${NAMES[kind]}`}
          onPress={() => onChoose(kind)}
          style={{ alignItems: 'center', paddingHorizontal: 6, minWidth: 56 }}
        >
          <Type
            isBold={kind === chosen}
            style={{ borderBottomWidth: 2, borderBottomColor: kind === chosen ? colours.petrol : 'transparent' }}
          >
            {NAMES[kind]}
          </Type>
        </Press>
      ))}
    </View>
  );
}
