import { View } from 'react-native';
import { useDevice, usePackState } from '../offline/deviceContext';
import { sentSizeOf } from '../offline/packs';
import { changeSettings, useSettings } from '../settings/settings';
import { sizeName } from './dates';
import { WordButton } from './press';
import { Progress } from './progress';
import { useColours } from './theme';
import { Type } from './type';

/** On the first visit: what has to be downloaded for words while one speaks, and how large it is. Answered once. */
export function PackOffer() {
  const colours = useColours();
  const { packs } = useDevice();
  const { state, ...more } = usePackState();
  const { isPackAnswered, fetchesPack } = useSettings();
  const answer = () => changeSettings({ isPackAnswered: true });
  if (isPackAnswered || !packs.pack) return null;
  const size = sizeName(sentSizeOf(packs.pack));
  const share = 'share' in more ? more.share : 0;
  if (state !== 'absent' && state !== 'fetching') return null;
  if (state === 'absent' && !fetchesPack) return null;
  return (
    <View
      role="region"
      aria-label="Live words"
      style={{ paddingHorizontal: 12, paddingTop: 10, borderTopWidth: 1, borderTopColor: colours.rule }}
    >
      {state === 'fetching' ? (
        <>
          <Type size="small" role="status">
            Downloading the pack for live words: {Math.floor(share * 100)}% of {size}
          </Type>
          <Progress label="Download of the pack" share={share} />
          <WordButton label="Cancel" onPress={() => packs.stop()} />
        </>
      ) : (
        <>
          <Type size="small">
            Read your words as you speak, even without a network. This device downloads a pack once ({size}).
          </Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label={`Download, ${size}`} isBold onPress={() => void packs.fetch()} />
            <WordButton label="Not now" onPress={answer} />
          </View>
        </>
      )}
    </View>
  );
}
