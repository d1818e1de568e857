import type { Scope } from '@immeld/core/contract/scope';
import { addDays, format } from 'date-fns';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useScope, useSheetChanges, useSheetsOfSeveral } from '../../api/templates';
import { localDay, whenSaid } from '../../ui/dates';
import { DayField } from '../../ui/dayField';
import { Empty, Failure, Loading } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { Title, Type } from '../../ui/type';
import { OneSheet } from './oneSheet';
import { TemplateChoice } from './sheets';
import { useClosable } from '../../ui/useClosable';

const SPANS = ['all time', 'last 7 days', 'last 30 days', 'custom dates'] as const;
type Span = (typeof SPANS)[number];
const daysBefore = (days: number): string => format(addDays(new Date(), -days), 'yyyy-MM-dd');

/** Write-ups of several recordings: what they are made of, over which time, and by which template. */
export function Several({ asked }: { asked: Scope }) {
  const router = useRouter();
  const [scope, setScope] = useState(asked);
  const [span, setSpan] = useState<Span>(asked.from ? 'custom dates' : 'all time');
  const [isChoosing, setChoosing] = useClosable(false);
  const [newest, setNewest] = useState<string | null>(null);
  const [isListing, setListing] = useState(false);
  const { data, error, refetch } = useScope(scope);
  const sheets = useSheetsOfSeveral();
  const changes = useSheetChanges(scope);
  const choose = (chosen: Span) => {
    setSpan(chosen);
    const { from, to, ...rest } = scope;
    const today = localDay(new Date());
    if (chosen === 'all time') setScope(rest);
    else if (chosen === 'custom dates') setScope({ ...rest, from: from ?? daysBefore(30), to: to ?? today });
    else setScope({ ...rest, from: daysBefore(chosen === 'last 7 days' ? 6 : 29), to: today });
  };
  const count = data?.recordings.length ?? 0;
  const mine = sheets.data?.items.filter((s) => JSON.stringify(s.scope) === JSON.stringify(scope)) ?? [];
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40, gap: 10 }}>
        <View>
          <Type size="tiny" tone="faint">
            Write-up of several recordings
          </Type>
          <Title>{data?.title ?? '…'}</Title>
          {!scope.recordingIds && (
            <OneOf label="Period" options={SPANS} nameOf={(s) => s} chosen={span} onChoose={choose} />
          )}
          {span === 'custom dates' && (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 16 }}>
              <DayField label="From" day={scope.from ?? ''} onChange={(from) => setScope({ ...scope, from })} />
              <DayField label="To" day={scope.to ?? ''} onChange={(to) => setScope({ ...scope, to })} />
            </View>
          )}
        </View>
        {error && <Failure error={error} onRetry={() => void refetch()} />}
        {!data && !error && <Loading />}
        {data && !error && count === 0 && (
          <Empty title="Nothing recorded in this period">
            None of these recordings is transcribed. Choose another period or another shelf.
          </Empty>
        )}
        {count > 0 && !error && (
          <View>
            <WordButton
              label={`Made from ${count} ${count === 1 ? 'recording' : 'recordings'}`}
              aria-expanded={isListing}
              onPress={() => setListing(!isListing)}
            />
            {isListing &&
              data!.recordings.map((r) => (
                <WordButton
                  key={r.id}
                  label={`${r.title}, ${whenSaid(r.startedAt)}`}
                  tone="faint"
                  onPress={() => router.push({ pathname: '/recordings/[id]', params: { id: r.id } })}
                />
              ))}
          </View>
        )}
        {mine.map((sheet) => (
          <OneSheet
            key={sheet.id}
            sheet={sheet}
            of={data?.title ?? ''}
            changes={changes}
            isNew={sheet.id === newest}
            onPlay={({ recordingId, startMs }) =>
              recordingId &&
              router.push({ pathname: '/recordings/[id]', params: { id: recordingId, at: String(startMs ?? 0) } })
            }
          />
        ))}
        {changes.make.error && <Failure error={changes.make.error} />}
        {isChoosing ? (
          <TemplateChoice
            isBusy={changes.make.isPending}
            onChoose={(template) =>
              changes.make.mutate(template, {
                onSuccess: ({ id }) => {
                  setNewest(id);
                  setChoosing(false);
                },
              })
            }
            onClose={() => setChoosing(false)}
          />
        ) : (
          count > 0 && <WordButton label="Make a write-up" isBold onPress={() => setChoosing(true)} />
        )}
      </ScrollView>
    </Page>
  );
}
