import type { Recording } from '@immeld/core/contract/recordings';
import { STUDY_CHOICES, type StudyChoice, stepsOf, stretchesToStudy } from '@immeld/core/study/sitting';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { v4 as newId } from 'uuid';
import { type SittingQuestion, useRecall } from '../../api/study';
import { useParts } from '../../api/templates';
import { changeSettings, useSettings } from '../../settings/settings';
import { Back } from '../../ui/back';
import { Choice } from '../../ui/choice';
import { Failure, Loading } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { WordButton } from '../../ui/press';
import { READING_WIDTH } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { titleOf } from '../tray/recordingRow';
import { QuestionList } from './questionList';
import { SittingView } from './sittingView';

const MINUTES = ['10', '15', '30', '45'] as const;
const CHOICE_NAMES: Record<StudyChoice, { label: string; hint: string }> = {
  all: { label: 'The whole recording', hint: 'Every passage, one after the other' },
  marked: { label: 'What is marked', hint: 'The words beside your marks' },
  check: { label: 'What to check later', hint: 'The words beside the marks “Check later”' },
  doubtful: { label: 'Doubtful words', hint: 'Passages in which a word may be wrong' },
  questions: { label: 'Questions only', hint: 'What you want to recall' },
};

/** Chooses what is gone through, and for how long; then goes through it. */
export function StudyPage({ recording }: { recording: Recording }) {
  const [sitting, setSitting] = useState<ReturnType<typeof stepsOf<SittingQuestion>> | null>(null);
  const { studyMinutes } = useSettings();
  if (sitting)
    return <SittingView recording={recording} steps={sitting} minutes={studyMinutes} onEnd={() => setSitting(null)} />;
  return (
    <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: 16, paddingBottom: 40, alignItems: 'center' }}>
      <View style={{ width: '100%', maxWidth: READING_WIDTH }}>
        <Back home="/tray" size="tiny">
          {titleOf(recording)}
        </Back>
        <Title>Study</Title>
        <Chooser recording={recording} onBegin={setSitting} />
      </View>
    </ScrollView>
  );
}

function Chooser({
  recording,
  onBegin,
}: {
  recording: Recording;
  onBegin: (steps: ReturnType<typeof stepsOf<SittingQuestion>>) => void;
}) {
  const { studyMinutes, doubtfulBelow } = useSettings();
  const recall = useRecall(recording.id);
  const headings = recording.slips.filter((s) => s.kind === 'heading');
  const proposed = useParts(recording.id, headings.length === 0);
  const [choice, setChoice] = useState<StudyChoice>('all');
  const [partAt, setPartAt] = useState<number | null>(null);
  const [hasQuestions, setHasQuestions] = useState(true);
  const parts = headings.length
    ? headings.map((h) => ({ title: h.text || 'New part', startMs: h.startMs }))
    : (proposed.data?.items ?? []);
  const part =
    partAt === null ? null : { fromMs: partAt, toMs: parts.find((p) => p.startMs > partAt)?.startMs ?? Infinity };
  if (!recall.data)
    return recall.error ? (
      <Failure error={recall.error} onRetry={() => void recall.refetch()} />
    ) : (
      <Loading label="Finding questions" />
    );
  const questions = questionsToAsk(recall.data, part);
  const rules = { doubtfulBelow, part };
  const stretches = stretchesToStudy(recording, choice, rules);
  const steps = stepsOf(stretches, choice === 'questions' || hasQuestions ? questions : []);
  return (
    <View style={{ gap: 14, paddingTop: 12 }}>
      <View role="radiogroup" aria-label="What to go through">
        {STUDY_CHOICES.map((option) => {
          const count = stretchesToStudy(recording, option, rules).length;
          const found = option === 'questions' ? questions.length : count;
          return (
            <Choice
              key={option}
              label={`${CHOICE_NAMES[option].label} · ${found}`}
              hint={CHOICE_NAMES[option].hint}
              isOn={choice === option}
              onPress={() => setChoice(option)}
            />
          );
        })}
      </View>
      {parts.length > 0 && (
        <OneOf
          label="Part"
          options={['', ...parts.map((p) => String(p.startMs))]}
          nameOf={(at) => parts.find((p) => String(p.startMs) === at)?.title ?? 'All parts'}
          chosen={partAt === null ? '' : String(partAt)}
          onChoose={(at) => setPartAt(at === '' ? null : Number(at))}
        />
      )}
      <OneOf
        label="Minutes"
        options={MINUTES}
        nameOf={(m) => m}
        chosen={String(studyMinutes) as (typeof MINUTES)[number]}
        onChoose={(m) => changeSettings({ studyMinutes: Number(m) })}
      />
      {choice !== 'questions' && (
        <Choice
          role="switch"
          label={`Ask questions after the passages · ${questions.length}`}
          isOn={hasQuestions}
          onPress={() => setHasQuestions(!hasQuestions)}
        />
      )}
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Begin" isBold disabled={steps.length === 0} onPress={() => onBegin(steps)} />
      </View>
      {steps.length === 0 && (
        <Type tone="faint" role="status">
          There is nothing of this kind here. Choose something else.
        </Type>
      )}
      <QuestionList recording={recording} recall={recall.data} />
    </View>
  );
}

/** What is due, and what is proposed and was never asked. */
function questionsToAsk(
  { items, proposals }: NonNullable<ReturnType<typeof useRecall>['data']>,
  part: { fromMs: number; toMs: number } | null,
): SittingQuestion[] {
  const now = new Date().toISOString();
  const isIn = ({ startMs }: { startMs: number }) => !part || (startMs >= part.fromMs && startMs < part.toMs);
  return [
    ...items.filter((c) => c.dueAt <= now).map((c) => ({ ...askedOf(c), id: c.id, isProposed: false })),
    ...proposals.map((p) => ({ ...askedOf(p), id: newId(), isProposed: true })),
  ].filter(isIn);
}

const askedOf = ({ question, answer, startMs, endMs }: Omit<SittingQuestion, 'id' | 'isProposed'>) => ({
  ...{ question, answer, startMs, endMs },
});
