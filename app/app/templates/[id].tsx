import { type Template, templateSchema } from '@immeld/core/contract/templates';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { usePreview, useTemplateChanges, useTemplates } from '../../api/templates';
import { useRecordings } from '../../api/queries';
import { SheetText } from '../../features/writeUps/sheetText';
import { TemplateFields } from '../../features/writeUps/templateFields';
import { useShowDone } from '../../ui/doing';
import { Empty, Failure, Loading } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Page, useIsWide } from '../../ui/shell';
import { Title, Type } from '../../ui/type';
import { titleOf } from '../../features/tray/recordingRow';

/** Writes a template, with what it makes of a recording beside it. */
export default function TemplateScreen() {
  const router = useRouter();
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error, refetch } = useTemplates();
  const kept = data?.items.find((t) => t.id === id && !t.isShipped);
  if (error)
    return (
      <Page>
        <Failure error={error} onRetry={() => void refetch()} />
      </Page>
    );
  if (!data)
    return (
      <Page>
        <Loading />
      </Page>
    );
  if (!kept)
    return (
      <Page>
        <View style={{ paddingTop: 14 }}>
          <Title>Template</Title>
        </View>
        <Empty
          title="This template no longer exists"
          action={<WordButton label="Go to templates" onPress={() => router.navigate('/templates')} />}
        >
          It was removed, or it came with Immeld. To edit a template that came with Immeld, copy it first.
        </Empty>
      </Page>
    );
  return <Writing key={id} id={id} before={kept.template} />;
}

function Writing({ id, before }: { id: string; before: Template }) {
  const router = useRouter();
  const isWide = useIsWide();
  const showDone = useShowDone();
  const { change } = useTemplateChanges();
  const [template, setTemplate] = useState(before);
  const problem = problemOf(template);
  const save = () =>
    change.mutate(
      { id, template },
      {
        onSuccess: (done) => {
          showDone(done);
          router.navigate('/templates');
        },
      },
    );
  return (
    <Page isFull>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}>
        <Title>Template</Title>
        <View style={{ flexDirection: isWide ? 'row' : 'column', gap: 24, paddingTop: 8 }}>
          <View style={{ flex: isWide ? 1 : undefined, gap: 8 }}>
            <TemplateFields template={template} onChange={setTemplate} />
            {problem && (
              <Type role="alert" tone="rowan">
                {problem}
              </Type>
            )}
            {change.error && <Failure error={change.error} />}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
              <WordButton label="Save" isBold disabled={problem !== null} onPress={save} />
              <WordButton label="Cancel" onPress={() => router.navigate('/templates')} />
            </View>
          </View>
          <View style={{ flex: isWide ? 1 : undefined }}>
            <Preview template={problem ? null : template} />
          </View>
        </View>
      </ScrollView>
    </Page>
  );
}

function problemOf(template: Template): string | null {
  try {
    templateSchema.validateSync(template);
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** What the template makes of a recording that is chosen from the newest. */
function Preview({ template }: { template: Template | null }) {
  const { data } = useRecordings({ place: 'all' });
  const recordings = (data?.pages.flatMap((p) => p.items) ?? []).filter((r) => r.state === 'ready').slice(0, 12);
  const [chosen, setChosen] = useState<string | null>(null);
  const recording = recordings.find((r) => r.id === chosen) ?? recordings[0];
  const { data: made, error } = usePreview(recording?.id ?? null, template);
  return (
    <PencilBox>
      <Type size="tiny" tone="faint">
        Preview with
      </Type>
      <ScrollView
        horizontal
        role="radiogroup"
        aria-label="Recording for the preview"
        contentContainerStyle={{ gap: 16 }}
      >
        {recordings.map((r) => (
          <Press
            key={r.id}
            role="radio"
            aria-checked={r === recording}
            label={titleOf(r)}
            onPress={() => setChosen(r.id)}
          >
            <Type isBold={r === recording} numberOfLines={1} style={{ maxWidth: 220 }}>
              {titleOf(r)}
            </Type>
          </Press>
        ))}
      </ScrollView>
      {error && <Failure error={error} />}
      {made && <SheetText sections={made.sections} />}
      {made?.sections.length === 0 && <Type tone="faint">This recording contains nothing for this template.</Type>}
    </PencilBox>
  );
}
