import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import type { RecallRating } from '@immeld/core/study/schedule';
import type { Step } from '@immeld/core/study/sitting';
import { useEffect, useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { addressOf } from '../../api/call';
import { type SittingQuestion, useRecallChanges } from '../../api/study';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { isInField, isOnControl } from '../../ui/inField';
import { READING_WIDTH, useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { SlidePicture } from '../recording/slidePicture';
import { SoundPlayer, usePlayer } from '../recording/soundPlayer';
import { placedSlides, slideAt } from '../recording/useSlides';
import { titleOf } from '../tray/recordingRow';
import { type Sitting, beginSitting, isOver, move, rate, showAnswer } from './sittingState';
import { SittingSummary } from './sittingSummary';

const MINUTE_MS = 60_000;
/** A line that grows this often is seen to move only when one looks for it. */
const TICK_MS = 5000;

const RATINGS: { rating: RecallRating; label: string }[] = [
  { rating: 'unknown', label: 'Not known' },
  { rating: 'hard', label: 'With effort' },
  { rating: 'known', label: 'Known' },
  { rating: 'easy', label: 'At once' },
];

type SittingViewProps = {
  recording: Recording;
  steps: readonly Step<SittingQuestion>[];
  minutes: number;
  onEnd: () => void;
};

/** One passage or question at a time, with the time that is left as a line that shrinks. */
export function SittingView({ recording, steps, minutes, onEnd }: SittingViewProps) {
  const [sitting, setSitting] = useState<Sitting>(() => beginSitting(steps));
  const [isStopped, setStopped] = useState(false);
  const player = useSittingPlayer(recording);
  const changes = useRecallChanges(recording.id);
  const usedMs = useUsedTime(isStopped || isOver(sitting));
  const step = sitting.steps[sitting.at];
  const span = step?.kind === 'stretch' ? step.stretch : step?.question;
  const act = {
    play: () => {
      if (!span) return;
      if (player.getState().isPlaying) player.toggle();
      else player.playSpan(span.startMs, span.endMs);
    },
    back: () => setSitting((s) => move(s, -1)),
    next: () => setSitting((s) => (step?.kind === 'question' && !s.isAnswerShown ? showAnswer(s) : move(s, 1))),
    rate: (rating: RecallRating) => {
      if (step?.kind !== 'question' || !sitting.isAnswerShown) return;
      changes.review.mutate({ card: step.question, rating });
      setSitting((s) => rate(s, rating));
    },
  };
  useSittingKeys(act);
  useEffect(() => {
    if (player.getState().isPlaying) player.toggle();
  }, [player, sitting.at]);
  if (!step || isStopped)
    return (
      <SittingSummary
        sitting={sitting}
        usedMs={usedMs}
        onAgain={() => {
          void changes.refresh();
          onEnd();
        }}
        onGoOn={step ? () => setStopped(false) : null}
      />
    );
  return (
    <View style={{ flex: 1 }}>
      <TimeLine share={usedMs / (minutes * MINUTE_MS)} />
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: 16, alignItems: 'center' }}>
        <View style={{ width: '100%', maxWidth: READING_WIDTH, gap: 14 }}>
          <Type size="tiny" tone="faint" role="status">
            {`${titleOf(recording)} · ${sitting.at + 1} of ${sitting.steps.length}`}
          </Type>
          {usedMs > minutes * MINUTE_MS && (
            <Type tone="petrol" role="status">
              {`${minutes} minutes are over. Stop here, or go on as long as you like.`}
            </Type>
          )}
          {step.kind === 'stretch' ? (
            <Passage recording={recording} startMs={step.stretch.startMs} text={step.stretch.text} />
          ) : (
            <Question question={step.question} isAnswerShown={sitting.isAnswerShown} />
          )}
          {changes.review.error && <Failure error={changes.review.error} />}
        </View>
      </ScrollView>
      <Controls player={player} step={step} sitting={sitting} act={act} onStop={() => setStopped(true)} />
    </View>
  );
}

/** The sound of the recording, which is heard passage by passage. */
function useSittingPlayer({ id, durationMs }: Recording): SoundPlayer {
  const [player] = useState(() => new SoundPlayer(addressOf('getSound', { params: { id } }), durationMs));
  useEffect(() => () => player.close(), [player]);
  return player;
}

/** Milliseconds of this sitting; it stands still while it is stopped. */
function useUsedTime(isStopped: boolean): number {
  const [usedMs, setUsedMs] = useState(0);
  useEffect(() => {
    if (isStopped) return;
    let last = performance.now();
    const count = () => {
      const now = performance.now();
      setUsedMs((used) => used + now - last);
      last = now;
    };
    const timer = setInterval(count, TICK_MS);
    return () => {
      count();
      clearInterval(timer);
    };
  }, [isStopped]);
  return usedMs;
}

type Act = { play: () => void; back: () => void; next: () => void; rate: (rating: RecallRating) => void };

/** Space plays, Enter and the arrows go on and back, 1 to 4 say how well a question was answered. */
function useSittingKeys(act: Act): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event) || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
      const isPress = event.key === ' ' || event.key === 'Enter';
      if (isPress && isOnControl(event.target as HTMLElement)) return;
      const rating = RATINGS[Number(event.key) - 1]?.rating;
      const keys: Record<string, () => void> = {
        ' ': act.play,
        Enter: act.next,
        ArrowRight: act.next,
        ArrowLeft: act.back,
      };
      const does = rating ? () => act.rate(rating) : keys[event.key];
      if (!does) return;
      event.preventDefault();
      does();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}

/** The time that was used, as a part of what was planned. */
function TimeLine({ share }: { share: number }) {
  const colours = useColours();
  const left = Math.max(0, 1 - share);
  return (
    <View
      role="progressbar"
      aria-label="Time left"
      aria-valuenow={Math.round(left * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
      style={{ height: 3, backgroundColor: colours.rule }}
    >
      <View style={{ height: 3, width: `${left * 100}%`, backgroundColor: colours.petrol }} />
    </View>
  );
}

function Passage({ recording, startMs, text }: { recording: Recording; startMs: number; text: string }) {
  const slides = useMemo(() => placedSlides(recording), [recording]);
  const slide = slides[slideAt(slides, startMs)];
  return (
    <View style={{ gap: 14 }}>
      {slide && <SlidePicture slide={slide} size={{ width: '100%', height: 180 }} />}
      <Type size="tiny" tone="faint">
        {clockTime(startMs)}
      </Type>
      <Type size="body" face="text">
        {text}
      </Type>
    </View>
  );
}

function Question({ question, isAnswerShown }: { question: SittingQuestion; isAnswerShown: boolean }) {
  return (
    <PencilBox isInk={!question.isProposed} style={{ padding: 16, gap: 14 }}>
      <Type size="tiny" tone="faint">
        {question.isProposed ? 'Suggested question' : 'Question'}
      </Type>
      <Type size="body" face="text">
        {question.question}
      </Type>
      {isAnswerShown && (
        <View role="status">
          <Title>{question.answer}</Title>
        </View>
      )}
    </PencilBox>
  );
}

type ControlsProps = {
  player: SoundPlayer;
  step: Step<SittingQuestion>;
  sitting: Sitting;
  act: Act;
  onStop: () => void;
};

function Controls({ player, step, sitting, act, onStop }: ControlsProps) {
  const colours = useColours();
  const isPlaying = usePlayer(player, (s) => s.isPlaying);
  const isQuestion = step.kind === 'question';
  const isAsked = isQuestion && !sitting.isAnswerShown;
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: colours.rule, alignItems: 'center', paddingHorizontal: 16 }}>
      <View
        role="group"
        aria-label="Sitting"
        style={{ width: '100%', maxWidth: READING_WIDTH, flexDirection: 'row', flexWrap: 'wrap', paddingVertical: 6 }}
      >
        {isQuestion && sitting.isAnswerShown ? (
          RATINGS.map(({ rating, label }) => (
            <WordButton key={rating} label={label} isBold onPress={() => act.rate(rating)} />
          ))
        ) : (
          <WordButton label={isAsked ? 'Show the answer' : 'Next'} isBold onPress={act.next} />
        )}
        {!isAsked && <WordButton label={isPlaying ? 'Pause' : 'Play'} onPress={act.play} />}
        <WordButton label="Back" disabled={sitting.at === 0} onPress={act.back} />
        <WordButton label="Stop" onPress={onStop} />
      </View>
    </View>
  );
}
