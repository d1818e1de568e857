import type { Related } from '@immeld/core/contract/find';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { localTime, whenSaid } from '../../ui/dates';
import { Press } from '../../ui/press';
import { Title, Type } from '../../ui/type';

/** Recordings and notes with the reason why they stand here. Nothing where there are none. */
export function RelatedList({ title, items }: { title: string; items: readonly Related[] }) {
  const router = useRouter();
  if (items.length === 0) return null;
  const when = ({ at }: Related) => (at ? whenSaid(at.endsWith('Z') ? localTime(new Date(at)) : at) : null);
  return (
    <View role="region" aria-label={title}>
      <Title level={2}>{title}</Title>
      {items.map((item) => (
        <Press
          key={item.id}
          role="link"
          label={`${item.title || 'Note without a title'}, ${item.reason}`}
          onPress={() =>
            router.push({
              pathname: item.kind === 'note' ? '/notes/[id]' : '/recordings/[id]',
              params: { id: item.id },
            })
          }
          style={{ paddingVertical: 6 }}
        >
          <Type face="text">{item.title || 'Untitled note'}</Type>
          <Type size="tiny" tone="faint">
            {[item.reason, when(item)].filter(Boolean).join(' · ')}
          </Type>
        </Press>
      ))}
    </View>
  );
}
