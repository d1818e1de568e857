import { useLocalSearchParams } from 'expo-router';
import { itemsOfAddress } from '../features/exports/exportNames';
import { ExportPage } from '../features/exports/exportPage';
import { Page } from '../ui/shell';
import { Title, Type } from '../ui/type';

/** Recordings and notes as files. */
export default function TakeScreen() {
  const { items: text = '' } = useLocalSearchParams<{ items?: string }>();
  const items = itemsOfAddress(text);
  return (
    <Page>
      {items.length ? (
        <ExportPage key={text} items={items} />
      ) : (
        <>
          <Title>Export</Title>
          <Type>Choose recordings or notes first: select them on a shelf, or open one and go to “About”.</Type>
        </>
      )}
    </Page>
  );
}
