import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { type OutboxItem, useDevice, useOutbox } from '../../offline/deviceContext';
import { spokenName } from '../../ui/dates';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

type Hit = { item: OutboxItem; text: string };

/** How much of a text is shown before and after the word that was looked for. */
const AROUND = 60;

/** Recordings on this device, not sent yet, in which all the words were said. */
export function FoundHere({ q }: { q: string }) {
  const colours = useColours();
  const router = useRouter();
  const hits = useHitsHere(q);
  if (hits.length === 0) return null;
  return (
    <View role="list" aria-label="Found on this device">
      <Type size="tiny" tone="faint">
        On this device, not sent yet
      </Type>
      {hits.map(({ item, text }) => (
        <View role="listitem" key={item.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
          <Press
            role="link"
            label={`${spokenName(item.startedAt)}: ${text}`}
            onPress={() => router.push({ pathname: '/here/[id]', params: { id: item.id } })}
            style={{ paddingVertical: 8 }}
          >
            <Type isBold>{spokenName(item.startedAt)}</Type>
            <Type face="text">{text}</Type>
          </Press>
        </View>
      ))}
    </View>
  );
}

function useHitsHere(q: string): readonly Hit[] {
  const { store } = useDevice();
  const { items } = useOutbox();
  const [hits, setHits] = useState<readonly Hit[]>([]);
  useEffect(() => {
    let isGone = false;
    const wanted = q.toLowerCase().split(/\s+/u).filter(Boolean);
    const look = async (): Promise<Hit[]> => {
      if (wanted.length === 0) return [];
      const here = items.filter((item) => item.state !== 'sent');
      const texts = await Promise.all(here.map(async (item) => ({ item, words: await store.textOf(item.id) })));
      return texts.flatMap(({ item, words }) => {
        const text = words.map((w) => w.text).join(' ');
        const lower = text.toLowerCase();
        if (!wanted.every((word) => lower.includes(word))) return [];
        const at = lower.indexOf(wanted[0]!);
        const from = Math.max(0, text.lastIndexOf(' ', Math.max(0, at - AROUND)) + 1);
        return [{ item, text: `${from ? '… ' : ''}${text.slice(from, at + AROUND)}` }];
      });
    };
    void look().then((found) => {
      if (!isGone) setHits(found);
    });
    return () => {
      isGone = true;
    };
  }, [q, items, store]);
  return hits;
}
