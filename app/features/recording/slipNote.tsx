import type { Slip } from '@immeld/core/contract/slips';
import { clockTime } from '@immeld/core/formats/times';
import { memo, useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { useChanges } from '../../api/queries';
import { LineEntry } from '../../ui/lineEntry';
import { MARKS, MarkShape } from '../../ui/mark';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { SLIP_NAMES } from '../../ui/slipNames';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import type { SoundPlayer } from './soundPlayer';

/** A mark, a written slip, a picture or whatever else stands in the margin at its second. */
export const SlipNote = memo(function SlipNote({ slip, player }: { slip: Slip; player: SoundPlayer }) {
  const colours = useColours();
  const { slip: change } = useChanges();
  const show = useUndoBar();
  const [isEditing, setEditing] = useState(false);
  const [text, setText] = useState(slip.text);
  const name = slip.mark ? MARKS[slip.mark].label : SLIP_NAMES[slip.kind];
  const tone = slip.mark ? colours[MARKS[slip.mark].tone] : slip.kind === 'aside' ? colours.heather : colours.rule;
  const isByRecorder = slip.kind === 'seam' || slip.kind === 'gap';
  const keep = () => {
    change.mutate({ id: slip.id, change: { text } });
    setEditing(false);
  };
  const remove = () => {
    change.mutate({ id: slip.id, change: { isBinned: true } });
    show(`${name} taken away.`, () => change.mutate({ id: slip.id, change: { isBinned: false } }));
  };
  return (
    <View role="article" aria-label={`${name} at ${clockTime(slip.startMs)}`}>
      <PencilBox isInk style={{ marginBottom: 10, borderLeftWidth: 3, borderLeftColor: tone }}>
        <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
          {slip.mark && <MarkShape kind={slip.mark} size={14} />}
          <Type size="tiny" tone="faint">
            {name}
          </Type>
        </View>
        {slip.text !== '' && (
          <Type isBold={slip.kind === 'heading'} {...(slip.kind === 'aside' ? { face: 'text' as const } : {})}>
            {slip.text}
          </Type>
        )}
        {slip.hasPicture && (
          <img
            src={addressOf('getPicture', { params: { id: slip.id } })}
            alt={slip.text || 'Picture'}
            style={{ maxWidth: '100%', maxHeight: 260, objectFit: 'contain', marginTop: 6 }}
          />
        )}
        {isEditing && (
          <LineEntry
            label="Words"
            action="Keep"
            value={text}
            onChange={setText}
            onSubmit={keep}
            maxLength={5000}
            autoFocus
          />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {!isByRecorder && !isEditing && (
            <WordButton label={slip.text ? 'Change' : 'Add words'} onPress={() => setEditing(true)} />
          )}
          {!isByRecorder && <WordButton label="Take away" onPress={remove} />}
          <WordButton
            label={`Play ${clockTime(slip.startMs)}`}
            tone="petrol"
            onPress={() => player.seek(slip.startMs, true)}
            style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
          />
        </View>
      </PencilBox>
    </View>
  );
});
