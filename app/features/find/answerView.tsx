import type { AnswerQuote, FoundAnswer } from '@immeld/core/contract/find';
import { clockTime } from '@immeld/core/formats/times';
import { format, parseISO } from 'date-fns';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { dueName, lengthName, whenSaid } from '../../ui/dates';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

const NOTHING = 'Nothing in your recordings and notes answers this.';

/** An answer made of what was said: each sentence with who said it and when, played with one tap. */
export function AnswerView({ answer }: { answer: FoundAnswer }) {
  const colours = useColours();
  const { quotes, nearest, digest, kind } = answer;
  const isDigest = kind === 'digest';
  // Said large only where the best sentence has it; another one's date may be of something else.
  const lifted = quotes[0]?.lifted ? quotes[0] : null;
  return (
    <View
      role="region"
      aria-label="Answer"
      style={{ borderLeftWidth: 3, borderLeftColor: colours.petrol, paddingLeft: 14, marginTop: 8, marginBottom: 18 }}
    >
      {isDigest ? (
        <Digest answer={answer} />
      ) : quotes.length === 0 ? (
        <>
          <Title level={2}>{NOTHING}</Title>
          {nearest.length > 0 && (
            <Type size="tiny" tone="faint">
              Closest matches:
            </Type>
          )}
          {nearest.map((quote) => (
            <QuoteLine key={`${quote.id} ${quote.startMs} ${quote.text}`} quote={quote} isFaint />
          ))}
        </>
      ) : (
        <>
          {lifted && (
            <Title level={2}>
              {[lifted.lifted, lifted.due ? `${dueName(lifted.due)}` : null].filter(Boolean).join(': ')}
            </Title>
          )}
          {quotes.map((quote) => (
            <QuoteLine key={`${quote.id} ${quote.startMs} ${quote.text}`} quote={quote} />
          ))}
          <Type size="tiny" tone="faint">
            Every sentence is quoted from your own recordings and notes.
          </Type>
        </>
      )}
      {isDigest && digest.length === 0 && <Title level={2}>Nothing was recorded in that period.</Title>}
    </View>
  );
}

function QuoteLine({ quote, isFaint = false }: { quote: AnswerQuote; isFaint?: boolean }) {
  const router = useRouter();
  const who = quote.speaker === 'me' ? 'you' : quote.speaker;
  const from = [who, quote.title || 'Untitled note', whenSaid(quote.saidAt)].filter(Boolean).join(' · ');
  return (
    <Press
      role="link"
      label={`“${quote.text}”, ${from}${quote.startMs === null ? '' : `, play ${clockTime(quote.startMs)}`}`}
      onPress={() =>
        router.push(
          quote.kind === 'note'
            ? { pathname: '/notes/[id]', params: { id: quote.id } }
            : { pathname: '/recordings/[id]', params: { id: quote.id, at: String(quote.startMs ?? 0) } },
        )
      }
      style={{ paddingVertical: 6 }}
    >
      <Type size="body" face="text" tone={isFaint ? 'faint' : 'ink'}>
        “{quote.text}”
      </Type>
      <Type size="tiny" tone="faint">
        {from}
        {quote.startMs !== null && (
          <Type size="tiny" tone="petrol">
            {'  '}▸ {clockTime(quote.startMs)}
          </Type>
        )}
      </Type>
    </Press>
  );
}

/** A period by day and project, each recording with a sentence of its own. */
function Digest({ answer: { digest } }: { answer: FoundAnswer }) {
  const router = useRouter();
  return (
    <View>
      {digest.map(({ date, projects, todosDone }) => (
        <View key={date} style={{ paddingBottom: 12 }}>
          <Title level={2}>{format(parseISO(date), 'EEEE d MMMM')}</Title>
          {projects.map(({ name, recordings }) => (
            <View key={name ?? ''}>
              {name && <Type isBold>{name}</Type>}
              {recordings.map((r) => (
                <Press
                  key={r.id}
                  role="link"
                  label={`${r.title}, ${whenSaid(r.startedAt)}`}
                  onPress={() =>
                    router.push({
                      pathname: '/recordings/[id]',
                      params: { id: r.id, ...(r.startMs === null ? {} : { at: String(r.startMs) }) },
                    })
                  }
                  style={{ paddingVertical: 4 }}
                >
                  <Type>
                    {r.title}{' '}
                    <Type size="tiny" tone="faint">
                      {[r.startedAt.slice(11, 16), r.durationMs ? lengthName(r.durationMs) : null]
                        .filter(Boolean)
                        .join(' · ')}
                    </Type>
                  </Type>
                  {r.sentence && (
                    <Type face="text" tone="faint">
                      “{r.sentence}”
                    </Type>
                  )}
                </Press>
              ))}
            </View>
          ))}
          {todosDone.length > 0 && <Type size="tiny">Done: {todosDone.join('; ')}</Type>}
        </View>
      ))}
    </View>
  );
}
