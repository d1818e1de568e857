import type { Slip } from '@immeld/core/contract/slips';
import { slipPlace } from '@immeld/core/formats/slipPlace';
import { clockTime } from '@immeld/core/formats/times';
import { memo } from 'react';
import { View } from 'react-native';
import { Press, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';
import { SlidePicture } from './slidePicture';
import { SlipNote } from './slipNote';
import type { SoundPlayer } from './soundPlayer';

const THUMBNAIL = { width: 96, height: 54 };

/** A slide in the margin, small: pressed, its words are heard. More of it is a slip like any other. */
export const SlideNote = memo(function SlideNote({ slip, player }: { slip: Slip; player: SoundPlayer }) {
  const [isMore, setMore] = useClosable(false);
  if (isMore)
    return (
      <View>
        <SlipNote slip={slip} player={player} />
        <WordButton label="Show less of this slide" onPress={() => setMore(false)} />
      </View>
    );
  const isProposed = slip.slide?.isProposed === true;
  const place = slip.isWhole ? 'no place yet' : `${clockTime(slip.startMs)}${isProposed ? ', suggested' : ''}`;
  return (
    <View
      role="article"
      aria-label={`Slide ${slip.slide?.page ?? ''} ${slipPlace(slip)}`}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 10, marginBottom: 10 }}
    >
      <Press
        label={slip.isWhole ? slip.text : `Play ${clockTime(slip.startMs)}: ${slip.text}`}
        disabled={slip.isWhole === true}
        onPress={() => player.seek(slip.startMs, true)}
      >
        <SlidePicture slide={slip} size={THUMBNAIL} />
      </Press>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Type size="small" numberOfLines={2}>
          {slip.text}
        </Type>
        <Type size="tiny" tone="faint">
          {`Slide ${slip.slide?.page ?? ''} · ${place}`}
        </Type>
      </View>
      <WordButton
        label="More"
        aria-label={`More actions for the slide ${slip.text}`}
        onPress={() => setMore(true)}
        style={{ marginRight: 0 }}
      />
    </View>
  );
});
