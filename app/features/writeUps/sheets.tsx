import type { Recording } from '@immeld/core/contract/recordings';
import type { Template } from '@immeld/core/contract/templates';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { View } from 'react-native';
import { useLanguageModel } from '../../api/languageModel';
import { useSheetChanges, useSheets, useTemplates } from '../../api/templates';
import { Choice } from '../../ui/choice';
import { Failure, Loading, useIsSlow } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { titleOf } from '../tray/recordingRow';
import { ModelWriting, type Written } from './modelWriting';
import { OneSheet } from './oneSheet';
import { useClosable } from '../../ui/useClosable';

type SheetsProps = { recording: Recording; onPlay: (ms: number) => void };

/** Write-ups of a recording in pencil, and the templates by which more can be made. */
export function Sheets({ recording, onPlay }: SheetsProps) {
  const { data, error } = useSheets(recording.id);
  const changes = useSheetChanges(recording.id);
  const { make } = changes;
  const router = useRouter();
  const [isChoosing, setChoosing] = useClosable(false);
  const [byModel, setByModel] = useState<Template | null>(null);
  const [written, setWritten] = useState<Written | null>(null);
  const showWritten = useCallback(
    (made: Written) => {
      setWritten(made);
      setByModel(null);
      setChoosing(false);
    },
    [setChoosing],
  );
  if (recording.state !== 'ready') return null;
  return (
    <View style={{ gap: 12 }}>
      {error && <Failure error={error} />}
      {data?.items.map((sheet) => (
        <OneSheet
          key={sheet.id}
          sheet={sheet}
          of={titleOf(recording)}
          changes={changes}
          isNew={sheet.id === written?.sheetId}
          {...(written && sheet.id === written.sheetId ? { problem: written.problem } : {})}
          onPlay={({ startMs }) => startMs !== null && onPlay(startMs)}
        />
      ))}
      {make.error && <Failure error={make.error} />}
      {byModel ? (
        <ModelWriting
          recordingId={recording.id}
          template={byModel}
          onDone={showWritten}
          onClose={() => setByModel(null)}
        />
      ) : isChoosing ? (
        <TemplateChoice
          isBusy={make.isPending}
          onChoose={(template) =>
            make.mutate(template, { onSuccess: ({ id }) => showWritten({ sheetId: id, problem: null }) })
          }
          onChooseModel={setByModel}
          onClose={() => setChoosing(false)}
        />
      ) : (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton label="Make a write-up" isBold onPress={() => setChoosing(true)} />
          <WordButton
            label="Topic map"
            onPress={() => router.push({ pathname: '/map/[id]', params: { id: recording.id } })}
          />
        </View>
      )}
    </View>
  );
}

type ChoiceProps = {
  isBusy: boolean;
  onChoose: (template: Template) => void;
  /** Offered where a language model is connected. */
  onChooseModel?: (template: Template) => void;
  onClose: () => void;
};

/** The templates, own ones first, to make a write-up by. */
export function TemplateChoice({ isBusy, onChoose, onChooseModel, onClose }: ChoiceProps) {
  const colours = useColours();
  const router = useRouter();
  const { data, error } = useTemplates();
  const { data: model } = useLanguageModel();
  const [isByModel, setIsByModel] = useState(false);
  const isSlow = useIsSlow(isBusy);
  const choose = isByModel && onChooseModel ? onChooseModel : onChoose;
  return (
    <PencilBox isInk>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Title level={2}>Which template?</Title>
        <WordButton label="Close" onPress={onClose} style={{ marginLeft: 'auto', marginRight: 0 }} />
      </View>
      {model?.isOn && onChooseModel && (
        <Choice
          role="switch"
          label="Write with my language model"
          hint={model.isStandIn ? 'the demo’s stand-in' : model.address}
          isOn={isByModel}
          onPress={() => setIsByModel(!isByModel)}
        />
      )}
      {error && <Failure error={error} />}
      {!data && !error && <Loading />}
      {isSlow && <Loading label="Making the write-up" />}
      {(isSlow ? [] : (data?.items ?? [])).map(({ id, template, isShipped }) => (
        <Press
          key={id}
          label={`${template.name}. ${template.about}`}
          disabled={isBusy}
          onPress={() => choose(template)}
          style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingVertical: 8 }}
        >
          <Type isBold>
            {template.name}
            {!isShipped && (
              <Type size="tiny" tone="faint">
                {'  '}
                yours
              </Type>
            )}
          </Type>
          {template.about !== '' && (
            <Type size="small" tone="faint">
              {template.about}
            </Type>
          )}
        </Press>
      ))}
      <WordButton label="Edit or copy templates" onPress={() => router.push('/templates')} style={{ paddingTop: 6 }} />
    </PencilBox>
  );
}
