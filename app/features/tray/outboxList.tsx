import { View } from 'react-native';
import { useOutbox } from '../../offline/deviceContext';
import { sizeName } from '../../ui/dates';
import { Progress } from '../../ui/progress';
import { Type } from '../../ui/type';
import { OutboxRow } from './outboxRow';

const ROWS_SHOWN = 30;
const MANY = 3;

/**
 * Everything that is on its way to the server: one bar each, and one for all of it when there is much.
 * @param addedTo id of a recording: only what is to be added to its end
 */
export function OutboxList({ addedTo }: { addedTo?: string }) {
  const outbox = useOutbox();
  const items = outbox.items.filter((i) => !addedTo || i.details['appendTo'] === addedTo);
  const preparing = addedTo ? [] : outbox.preparing;
  const shown = items.filter((i) => i.state !== 'sent' || i.hereSince);
  const going = items.filter((i) => i.state === 'waiting' || i.state === 'sending');
  const batch = items.filter((i) => i.state !== 'refused');
  const total = batch.reduce((sum, i) => sum + i.sizeBytes, 0);
  const sent = batch.reduce((sum, i) => sum + (i.state === 'sent' ? i.sizeBytes : i.sentBytes), 0);
  return (
    <View>
      {going.length >= MANY && (
        <View style={{ paddingVertical: 10, gap: 6 }} role="status" aria-label="All imports">
          <Type>
            {batch.length - going.length} of {batch.length} imported · {sizeName(sent)} of {sizeName(total)}
          </Type>
          <Progress label="All imports" share={total ? sent / total : 0} height={8} />
        </View>
      )}
      {preparing.map((name) => (
        <Type key={name} tone="faint" role="status">
          Extracting the audio from {name}…
        </Type>
      ))}
      {shown.slice(-ROWS_SHOWN).map((item) => (
        <OutboxRow key={item.id} item={item} />
      ))}
      {shown.length > ROWS_SHOWN && (
        <Type size="tiny" tone="faint">
          and {shown.length - ROWS_SHOWN} more
        </Type>
      )}
    </View>
  );
}
