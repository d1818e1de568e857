import { type Template, templateSchema } from '@immeld/core/contract/templates';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useTemplateChanges, useTemplates } from '../../api/templates';
import { UsualFor } from '../../features/writeUps/usualFor';
import { useShowDone, whenDone } from '../../ui/doing';
import { Failure, Loading } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { Page } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

/** Templates of write-ups: those that ship are copied, one's own are changed, all are files that can be shared. */
export default function TemplatesScreen() {
  const colours = useColours();
  const router = useRouter();
  const showDone = useShowDone();
  const { data, error, refetch } = useTemplates();
  const { add, remove } = useTemplateChanges();
  const [problem, setProblem] = useState<string | null>(null);

  const copy = (template: Template) =>
    add.mutate(
      { ...template, name: `${template.name} (copy)`.slice(0, 60) },
      { onSuccess: ({ id }) => router.push({ pathname: '/templates/[id]', params: { id } }) },
    );
  const bringIn = async () => {
    const file = await pickFile('.json,.yaml,.yml,application/json');
    if (file) await read(await file.text());
  };
  const read = async (text: string) => {
    setProblem(null);
    try {
      const { parse } = await import('yaml');
      // YAML 1.2 reads JSON too.
      add.mutate(templateSchema.validateSync(parse(text), { abortEarly: false, stripUnknown: false }));
    } catch (e) {
      const why =
        e instanceof Error && 'errors' in e
          ? [...new Set(e.errors as string[])].join(' ')
          : 'The file is neither JSON nor YAML.';
      setProblem(`This file is not a template. ${why} Nothing was changed.`);
    }
  };
  const takeAlong = async (template: Template) => {
    const { stringify } = await import('yaml');
    saveFile(new Blob([stringify(template)], { type: 'application/yaml' }), `${template.name}.yaml`);
  };
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}>
        <Title>Templates</Title>
        <Type tone="faint" style={{ paddingTop: 4 }}>
          A template sets what goes into a write-up, in what order and how long it is. Copy one to edit it.
        </Type>
        <WordButton label="Import a template" onPress={bringIn} />
        {problem && (
          <Type role="alert" tone="rowan">
            {problem}
          </Type>
        )}
        {(error ?? add.error ?? remove.error) && (
          <Failure error={(error ?? add.error ?? remove.error)!} onRetry={() => void refetch()} />
        )}
        {!data && !error && <Loading />}
        {data?.items.map(({ id, template, isShipped }) => (
          <View
            key={id}
            role="article"
            aria-label={template.name}
            style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: 10 }}
          >
            <Title level={2}>{template.name}</Title>
            {template.about !== '' && <Type tone="faint">{template.about}</Type>}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
              {!isShipped && (
                <WordButton
                  label="Edit"
                  isBold
                  onPress={() => router.push({ pathname: '/templates/[id]', params: { id } })}
                />
              )}
              <WordButton label="Copy" onPress={() => copy(template)} />
              <WordButton label="Export" onPress={() => void takeAlong(template)} />
              <UsualFor templateId={id} name={template.name} />
              {!isShipped && (
                <WordButton
                  label="Remove"
                  onPress={() => whenDone(remove.mutateAsync(id), showDone)}
                  style={{ marginLeft: 'auto', marginRight: 0 }}
                />
              )}
            </View>
          </View>
        ))}
      </ScrollView>
    </Page>
  );
}
