import type { Recording } from '@immeld/core/contract/recordings';
import type { RecallCard } from '@immeld/core/contract/study';
import { clockTime } from '@immeld/core/formats/times';
import { useState } from 'react';
import { View } from 'react-native';
import { v4 as newId } from 'uuid';
import { type useRecall, useRecallChanges } from '../../api/study';
import { dueName, localDay } from '../../ui/dates';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useClosable } from '../../ui/useClosable';

type Recall = NonNullable<ReturnType<typeof useRecall>['data']>;
type Words = { question: string; answer: string };

/** The questions of a recording: one's own, kept ones, and in pencil those that are suggested. */
export function QuestionList({ recording, recall: { items, proposals } }: { recording: Recording; recall: Recall }) {
  const { add, change } = useRecallChanges(recording.id);
  const show = useUndoBar();
  const [isOpen, setOpen] = useClosable(false);
  const [edited, setEdited] = useClosable<string | null>(null);
  const keep = (id: string, words: Words) => {
    change.mutate({ id, ...words });
    setEdited(null);
  };
  const remove = ({ id }: RecallCard) => {
    change.mutate({ id, isBinned: true });
    show('Question removed.', () => change.mutate({ id, isBinned: false }));
  };
  const accept = (proposal: Recall['proposals'][number], isDropped: boolean) => {
    const id = newId();
    add.mutate({ ...proposal, id, isOwn: false, isDropped });
    if (isDropped) show('Suggestion dropped.', () => change.mutate({ id, isBinned: false }));
  };
  const error = add.error ?? change.error;
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label={isOpen ? 'Close the questions' : `See the questions · ${items.length + proposals.length}`}
          aria-expanded={isOpen}
          onPress={() => setOpen(!isOpen)}
        />
        {isOpen && <WordButton label="Write a question" onPress={() => setEdited('new')} />}
        {isOpen && <WordButton label="Print" onPress={() => window.print()} />}
      </View>
      {error && <Failure error={error} />}
      {isOpen && edited === 'new' && (
        <Editor
          words={{ question: '', answer: '' }}
          onKeep={(words) => {
            add.mutate({ ...words, id: newId(), startMs: 0, endMs: recording.durationMs ?? 0, isOwn: true });
            setEdited(null);
          }}
          onCancel={() => setEdited(null)}
        />
      )}
      {isOpen && (
        <View role="list" aria-label="Questions">
          {items.map((card) => (
            <PencilBox key={card.id} isInk style={{ marginBottom: 8 }}>
              <View role="listitem">
                {edited === card.id ? (
                  <Editor words={card} onKeep={(words) => keep(card.id, words)} onCancel={() => setEdited(null)} />
                ) : (
                  <>
                    <Words {...card} />
                    <Type size="tiny" tone="faint">
                      {`${card.isOwn ? 'your own' : clockTime(card.startMs)} · ${dueOf(card)}`}
                    </Type>
                    <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
                      <WordButton label="Edit" onPress={() => setEdited(card.id)} />
                      <WordButton label="Remove" onPress={() => remove(card)} />
                    </View>
                  </>
                )}
              </View>
            </PencilBox>
          ))}
          {proposals.map((proposal) => (
            <PencilBox key={`${proposal.startMs} ${proposal.answer}`} style={{ marginBottom: 8 }}>
              <View role="listitem">
                <Words {...proposal} />
                <Type size="tiny" tone="faint">
                  {`${clockTime(proposal.startMs)} · suggested`}
                </Type>
                <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
                  <WordButton label="Accept" tone="petrol" onPress={() => accept(proposal, false)} />
                  <WordButton label="Drop" onPress={() => accept(proposal, true)} />
                </View>
              </View>
            </PencilBox>
          ))}
        </View>
      )}
    </View>
  );
}

/** When a question comes back: "due" or its day. */
const dueOf = ({ dueAt }: RecallCard): string =>
  dueAt <= new Date().toISOString() ? 'due' : `comes back ${dueName(localDay(new Date(dueAt)))}`;

function Words({ question, answer }: Words) {
  return (
    <View>
      <Type face="text">{question}</Type>
      <Type isBold>{answer}</Type>
    </View>
  );
}

function Editor({ words, onKeep, onCancel }: { words: Words; onKeep: (words: Words) => void; onCancel: () => void }) {
  const [question, setQuestion] = useState(words.question);
  const [answer, setAnswer] = useState(words.answer);
  const isWhole = question.trim() !== '' && answer.trim() !== '';
  return (
    <View style={{ gap: 6 }}>
      <Field label="Question" value={question} onChangeText={setQuestion} maxLength={1000} autoFocus />
      <Field label="Answer" value={answer} onChangeText={setAnswer} maxLength={1000} />
      <View style={{ flexDirection: 'row' }}>
        <WordButton
          label="Save"
          isBold
          disabled={!isWhole}
          onPress={() => onKeep({ question: question.trim(), answer: answer.trim() })}
        />
        <WordButton label="Cancel" onPress={onCancel} />
      </View>
    </View>
  );
}
