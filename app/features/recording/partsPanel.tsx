import { PARTS_FROM_MS, type Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { v4 as newId } from 'uuid';
import { call } from '../../api/call';
import { useParts } from '../../api/templates';
import { Failure, Loading } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import type { SoundPlayer } from './soundPlayer';
import { useClosable } from '../../ui/useClosable';

type PartsPanelProps = { recording: Recording; player: SoundPlayer };

/** What a long recording consists of: one's own headings, else parts that are proposed and can be set as headings. */
export function PartsPanel({ recording, player }: PartsPanelProps) {
  const router = useRouter();
  const [isOpen, setOpen] = useClosable(false);
  if (recording.state !== 'ready' || (recording.durationMs ?? 0) < PARTS_FROM_MS) return null;
  return (
    <View>
      <View style={{ flexDirection: 'row' }}>
        <WordButton
          label={isOpen ? 'Close contents' : 'Contents'}
          aria-expanded={isOpen}
          onPress={() => setOpen(!isOpen)}
        />
        <WordButton
          label="Study"
          onPress={() => router.push({ pathname: '/study/[id]', params: { id: recording.id } })}
        />
      </View>
      {isOpen && <Contents recording={recording} player={player} />}
    </View>
  );
}

function Contents({ recording: { id, slips }, player }: PartsPanelProps) {
  const client = useQueryClient();
  const router = useRouter();
  const show = useUndoBar();
  const headings = slips.filter((s) => s.kind === 'heading');
  const { data, error, refetch } = useParts(id, headings.length === 0);
  const refresh = () => client.invalidateQueries({ queryKey: ['recordings'] });
  const set = useMutation({
    mutationFn: async (parts: readonly { title: string; startMs: number }[]) => {
      const made = parts.map((p) => ({
        ...{ id: newId(), kind: 'heading' as const, mark: null, startMs: p.startMs, endMs: null },
        text: p.title,
      }));
      await call('addSlips', { params: { id }, body: { slips: made } });
      return made.map((m) => m.id);
    },
    onSuccess: (ids) => {
      void refresh();
      show(`${ids.length} headings added to the margin.`, () => {
        void Promise.all(
          ids.map((slip) => call('changeSlip', { params: { id: slip }, body: { isBinned: true } })),
        ).then(refresh);
      });
    },
  });
  const isPencil = headings.length === 0;
  const parts = isPencil ? (data?.items ?? []) : headings.map((h) => ({ title: h.text, startMs: h.startMs }));
  return (
    <PencilBox isInk={!isPencil} style={{ marginBottom: 10 }}>
      {isPencil && error && <Failure error={error} onRetry={() => void refetch()} />}
      {isPencil && !data && !error && <Loading />}
      {isPencil && data?.items.length === 0 && (
        <Type tone="faint">No parts found. The recording seems to stay on one topic.</Type>
      )}
      <View role="list" aria-label="Contents">
        {parts.map((part) => (
          <View role="listitem" key={part.startMs}>
            <Press
              label={`${part.title}, play from ${clockTime(part.startMs)}`}
              onPress={() => player.seek(part.startMs, true)}
              style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 12 }}
            >
              <Type size="small" tone="petrol" style={{ width: 56 }}>
                {clockTime(part.startMs)}
              </Type>
              <Type face="text" size="body" style={{ flex: 1 }}>
                {part.title}
              </Type>
            </Press>
          </View>
        ))}
      </View>
      {parts.length > 0 && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {isPencil && (
            <WordButton label="Add as headings" isBold disabled={set.isPending} onPress={() => set.mutate(parts)} />
          )}
          <WordButton label="Show as map" onPress={() => router.push({ pathname: '/map/[id]', params: { id } })} />
        </View>
      )}
      {set.error && <Failure error={set.error} />}
    </PencilBox>
  );
}
