import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { passageText } from '@immeld/core/transcript/manuscript';
import { format, parseISO } from 'date-fns';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { addressOf } from '../../api/call';
import { Choice } from '../../ui/choice';
import { dueWords, lengthName } from '../../ui/dates';
import { useMarkKinds } from '../../ui/mark';
import { WordButton } from '../../ui/press';
import { SLIP_NAMES } from '../../ui/slipNames';
import { FONTS, useColours } from '../../ui/theme';
import { useReading } from '../recording/reading';
import { manuscriptRows, marginOf } from '../recording/rows';
import { titleOf } from '../tray/recordingRow';

/** On paper nothing is scrolled, and nothing of the app stands around the text. */
const PRINT_RULES = `
@page { size: A4; margin: 22mm 20mm 24mm; }
@media print {
  html, body, #root, #root div { height: auto !important; min-height: 0 !important; overflow: visible !important;
    position: static !important; display: block !important; flex: none !important; background: #fff !important; }
  #root [data-screen] { display: none !important; }
  .page { color: #000 !important; max-width: none !important; padding: 0 !important; font-size: 11pt !important; }
  .page h1, .page h2 { break-after: avoid; }
  .page p, .page li, .page figure { break-inside: avoid; orphans: 3; widows: 3; }
}`;

type Parts = { writeUps: boolean; todos: boolean; words: boolean; margin: boolean; times: boolean };
const CHOICES: [keyof Parts, string][] = [
  ['writeUps', 'Write-ups'],
  ['todos', 'To-dos'],
  ['words', 'Words'],
  ['margin', 'Margin'],
  ['times', 'Times'],
];

/** Notes and words as a page: for reading without sound controls, and for paper. */
export function PageView({ recording }: { recording: Recording }) {
  const colours = useColours();
  const router = useRouter();
  const [shown, setShown] = useState<Parts>({ writeUps: true, todos: true, words: true, margin: true, times: false });
  const writeUps = recording.writeUps.filter((w) => w.state === 'ink');
  const todos = recording.todos.filter((t) => t.state === 'ink');
  const facts = [
    format(parseISO(recording.startedAt), 'd MMM yyyy, H:mm'),
    recording.durationMs ? lengthName(recording.durationMs) : null,
    recording.appointment?.people.join(', '),
    recording.tags.join(', '),
  ];
  return (
    <ScrollView style={{ flex: 1, backgroundColor: colours.paper }}>
      <style>{PRINT_RULES}</style>
      <View
        role="banner"
        {...({ dataSet: { screen: 'true' } } as object)}
        style={{ padding: 16, paddingBottom: 0, maxWidth: 720, width: '100%', alignSelf: 'center' }}
      >
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton
            label="Back to recording"
            role="link"
            onPress={() => router.navigate({ pathname: '/recordings/[id]', params: { id: recording.id } })}
          />
          <WordButton label="Print" isBold onPress={() => window.print()} />
        </View>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 14 }}>
          {CHOICES.map(([key, label]) => (
            <View key={key} style={{ minWidth: 120 }}>
              <Choice
                role="switch"
                label={label}
                isOn={shown[key]}
                onPress={() => setShown({ ...shown, [key]: !shown[key] })}
              />
            </View>
          ))}
        </View>
      </View>
      <main
        className="page"
        style={{
          ...{ fontFamily: FONTS.text, fontSize: 17, lineHeight: 1.6, color: colours.ink, maxWidth: 652 },
          ...{ margin: '0 auto', padding: '8px 16px 60px', boxSizing: 'border-box', width: '100%' },
        }}
      >
        <h1
          style={{
            fontFamily: FONTS.textBold,
            fontSize: 27,
            lineHeight: 1.3,
            fontWeight: 'normal',
            margin: '16px 0 4px',
          }}
        >
          {titleOf(recording)}
        </h1>
        <p style={{ fontFamily: FONTS.face, fontSize: 13, color: colours.faint, margin: 0 }}>
          {facts.filter(Boolean).join(' · ')}
        </p>
        {shown.writeUps && writeUps.length > 0 && (
          <section>
            <Heading>Summary</Heading>
            {writeUps.map((w) => (
              <p key={w.id} style={{ whiteSpace: 'pre-wrap' }}>
                {w.editedText ?? w.sentences.map((s) => s.text).join(' ')}
              </p>
            ))}
          </section>
        )}
        {shown.todos && todos.length > 0 && (
          <section>
            <Heading>To-dos</Heading>
            <ul style={{ listStyle: 'none', padding: 0 }}>
              {todos.map((t) => (
                <li key={t.id} style={{ display: 'flex', gap: 10 }}>
                  <span aria-label={t.isDone ? 'done' : 'open'} role="img">
                    {t.isDone ? '☒' : '☐'}
                  </span>
                  <span>
                    {t.text}
                    <span style={{ color: colours.faint }}>
                      {[t.who === 'me' ? null : t.who, dueWords(t)].filter(Boolean).map((x) => ` · ${x}`)}
                    </span>
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {(shown.words || shown.margin) && recording.passages.length > 0 && (
          <WordsAndMargin recording={recording} shown={shown} hasHeading={writeUps.length + todos.length > 0} />
        )}
      </main>
    </ScrollView>
  );
}

function Heading({ children }: { children: string }) {
  return (
    <h2 style={{ fontFamily: FONTS.text, fontWeight: 'normal', fontSize: 21, margin: '26px 0 6px' }}>{children}</h2>
  );
}

type WordsProps = { recording: Recording; shown: Parts; hasHeading: boolean };

function WordsAndMargin({ recording, shown, hasHeading }: WordsProps) {
  const colours = useColours();
  const read = useReading();
  const kinds = useMarkKinds();
  const rows = useMemo(() => manuscriptRows(recording), [recording]);
  return (
    <section>
      {hasHeading && <Heading>{shown.words ? 'Words' : 'Margin'}</Heading>}
      {rows.map((row) => {
        const { speaker, startMs } = row.passages[0]!;
        const lead = [shown.times ? clockTime(startMs) : null, speaker].filter(Boolean).join(' ');
        // To-dos stand in a list of their own.
        const slips = shown.margin ? marginOf({ todos: [], slips: row.slips }).map((m) => m.slip!) : [];
        return (
          <div key={row.key}>
            {slips
              .filter((s) => s.kind === 'heading')
              .map((s) => (
                <Heading key={s.id}>{s.text || 'New part'}</Heading>
              ))}
            {shown.words && (
              <p>
                {lead && <b style={{ fontFamily: FONTS.textBold, fontWeight: 'normal' }}>{lead}: </b>}
                {row.passages.map((p) => passageText({ words: read(p.words) })).join(' ')}
              </p>
            )}
            {slips
              .filter((s) => s.kind !== 'heading')
              .map((s) => (
                <figure
                  key={s.id}
                  style={{ margin: '0 0 12px 24px', borderLeft: `2px solid ${colours.rule}`, paddingLeft: 12 }}
                >
                  <figcaption style={{ fontFamily: FONTS.face, fontSize: 13, color: colours.faint }}>
                    {s.mark ? kinds.of(s.mark).label : SLIP_NAMES[s.kind]}, {clockTime(s.startMs)}
                    {s.assignee ? `, for ${s.assignee}` : ''}
                  </figcaption>
                  {s.file?.name ?? s.text}
                  {s.address !== null && <a href={s.address}>{s.address}</a>}
                  {s.comments.map((c) => (
                    <div key={c.id}>– {c.text}</div>
                  ))}
                  {s.hasPicture && (
                    <img
                      src={addressOf('getPicture', { params: { id: s.id } })}
                      alt={s.text || 'Picture'}
                      style={{ display: 'block', maxWidth: '100%', maxHeight: 380 }}
                    />
                  )}
                </figure>
              ))}
          </div>
        );
      })}
    </section>
  );
}
