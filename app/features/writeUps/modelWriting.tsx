import type { Template } from '@immeld/core/contract/templates';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useLanguageModel, useLanguageModelChanges, useModelRequest, writtenByModel } from '../../api/languageModel';
import { Failure, Loading } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** About so many tokens a word has, for a guess at what is paid for. Common practice, no source. */
const TOKENS_PER_WORD = 1.35;

/** A write-up that was just made, and why it is not the model's, if it is not. */
export type Written = { sheetId: string; problem: string | null };

type WritingProps = {
  recordingId: string;
  template: Template;
  onDone: (written: Written) => void;
  onClose: () => void;
};

/** A write-up by the language model: before the first time what is sent is shown, then its words as they come. */
export function ModelWriting({ recordingId, template, onDone, onClose }: WritingProps) {
  const client = useQueryClient();
  const { data: model } = useLanguageModel();
  const { change } = useLanguageModelChanges();
  const [text, setText] = useState('');
  const [error, setError] = useState<unknown>(null);
  const [stop] = useState(() => new AbortController());
  const hasBegun = useRef(false);
  const isReady = model?.hasAgreed === true;
  useEffect(() => {
    if (!isReady || hasBegun.current) return;
    hasBegun.current = true;
    writtenByModel(recordingId, template, setText, stop.signal)
      .then(async ({ sheet, problem }) => {
        await client.invalidateQueries({ queryKey: ['sheets', recordingId] });
        onDone({ sheetId: sheet.id, problem });
      })
      .catch((why) => stop.signal.aborted || setError(why));
  }, [isReady, recordingId, template, client, onDone, stop]);
  if (!model) return <Loading />;
  if (!isReady) {
    return (
      <WhatIsSent
        recordingId={recordingId}
        template={template}
        isBusy={change.isPending}
        onAgree={() => change.mutate({ hasAgreed: true })}
        onClose={onClose}
      />
    );
  }
  return (
    <PencilBox>
      <Title level={2}>{`${template.name}, by your language model`}</Title>
      {model.isStandIn && (
        <Type tone="ochre">This is the demo’s stand-in: it repeats sentences and understands nothing.</Type>
      )}
      {error !== null ? (
        <>
          <Failure error={error} />
          <WordButton label="Close" onPress={onClose} />
        </>
      ) : (
        <>
          {text === '' && <Loading label="Waiting for the first words" />}
          <Type face="text" size="body" aria-live="off">
            {text.replace(/^## */gm, '')}
          </Type>
          <WordButton
            label="Cancel"
            onPress={() => {
              stop.abort();
              onClose();
            }}
          />
        </>
      )}
    </PencilBox>
  );
}

type SentProps = { recordingId: string; template: Template; isBusy: boolean; onAgree: () => void; onClose: () => void };

function WhatIsSent({ recordingId, template, isBusy, onAgree, onClose }: SentProps) {
  const { data, error } = useModelRequest(recordingId, template);
  const [isOpen, setOpen] = useClosable(false);
  return (
    <PencilBox isInk>
      <Title level={2}>What will be sent</Title>
      {error && <Failure error={error} />}
      {!data && !error && <Loading />}
      {data && (
        <>
          <Type>
            To {data.address}
            {data.model ? `, to “${data.model}”` : ''}: {data.words.toLocaleString('en')} words, about{' '}
            {Math.round(data.words * TOKENS_PER_WORD).toLocaleString('en')} tokens.
            {data.sentencesSent < data.sentences
              ? ` Only the ${data.sentencesSent} most important of ${data.sentences} sentences.`
              : ''}{' '}
            Whoever runs the model can read them and may charge for them.
          </Type>
          <WordButton
            label={isOpen ? 'Hide text' : 'Show the full text'}
            aria-expanded={isOpen}
            onPress={() => setOpen(!isOpen)}
          />
          {isOpen &&
            data.messages.map(({ role, content }) => (
              <Type key={role} size="small" style={{ paddingBottom: 10 }}>
                {content}
              </Type>
            ))}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label="Send now and in future" isBold disabled={isBusy} onPress={onAgree} />
            <WordButton label="Cancel" onPress={onClose} />
          </View>
        </>
      )}
    </PencilBox>
  );
}
