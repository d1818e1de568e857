import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useTodoFeed } from '../../api/queries';
import { CopyButton } from '../../ui/copyButton';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** To-dos for other programs: a file of tasks, a check list, and an address that a calendar program reads again and again. */
export function ExportTodos() {
  const [isOpen, setOpen] = useClosable(false);
  if (!isOpen) return <WordButton label="Export" onPress={() => setOpen(true)} style={{ marginRight: 0 }} />;
  return <Ways onClose={() => setOpen(false)} />;
}

function Ways({ onClose }: { onClose: () => void }) {
  const { data, error } = useTodoFeed();
  const { todoFeed } = useChanges();
  const address = data?.address ? `${location.origin}${data.address}` : null;
  const get = (path: string) => {
    const link = document.createElement('a');
    Object.assign(link, { href: `/api${path}`, download: '' });
    link.click();
  };
  return (
    <PencilBox isInk style={{ width: '100%', gap: 4 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Calendar file" onPress={() => get('/todos.ics')} />
        <WordButton label="Checklist" onPress={() => get('/todos.md')} />
        <WordButton label="Close" onPress={onClose} style={{ marginLeft: 'auto', marginRight: 0 }} />
      </View>
      <Type size="small" tone="faint">
        {address
          ? 'Anyone with this address can read your to-dos. Add it to your calendar program. A new address replaces this one.'
          : 'You can also subscribe to your to-dos in a calendar program, through a private address.'}
      </Type>
      {address && (
        <Type size="small" selectable style={{ overflowWrap: 'anywhere' } as object}>
          {address}
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {address && <CopyButton label="Copy address" text={address} />}
        <WordButton
          label={address ? 'Replace address' : 'Create private address'}
          onPress={() => todoFeed.mutate(true)}
        />
        {address && <WordButton label="Turn off address" onPress={() => todoFeed.mutate(false)} />}
      </View>
      {(error ?? todoFeed.error) && <Failure error={(error ?? todoFeed.error)!} />}
    </PencilBox>
  );
}
