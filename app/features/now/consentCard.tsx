import { useState } from 'react';
import { View } from 'react-native';
import { useCapture, useCaptureNow } from '../../offline/deviceContext';
import { useSettings } from '../../settings/settings';
import { Field } from '../../ui/field';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';

const AGREEMENTS = ['Everyone agreed out loud', 'Told in writing beforehand', 'Someone does not agree'] as const;
/** Said by a synthetic voice: "This conversation is being recorded. Please say if you do not agree." */
const NOTICE = '/sound/consent-notice.m4a';

/** Who was told and how they agreed, with one tap; or a notice that everybody hears, and the recording too. */
export function ConsentChoices({ onDone }: { onDone: () => void }) {
  const engine = useCapture();
  const [problem, setProblem] = useState<string | null>(null);
  const people = useCaptureNow((now) => now.people);
  const [who, setWho] = useState(people.join(', '));
  const keep = (text: string) => {
    const told = who.trim();
    engine.addSlip({ kind: 'consent', text: told ? `${told}: ${text[0]!.toLowerCase()}${text.slice(1)}` : text });
    onDone();
  };
  const play = async () => {
    try {
      const answer = await fetch(NOTICE);
      if (!answer.ok) throw new Error(answer.statusText);
      await engine.announce(await answer.arrayBuffer());
      keep('The spoken notice was played');
    } catch {
      setProblem('The notice could not be played. Say it yourself: “This is being recorded.”');
    }
  };
  return (
    <View style={{ width: '100%' }}>
      {problem && (
        <Type size="tiny" tone="rowan" role="alert">
          {problem}
        </Type>
      )}
      <Field label="Who was told (optional)" value={who} onChangeText={setWho} maxLength={300} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }} role="group" aria-label="Consent">
        {AGREEMENTS.map((text) => (
          <WordButton key={text} label={text} onPress={() => keep(text)} />
        ))}
        <WordButton label="Play a spoken notice" onPress={() => void play()} />
        <WordButton label="Not now" onPress={onDone} />
      </View>
    </View>
  );
}

/** Reminds of consent at the beginning, where that is wanted. */
export function ConsentCard() {
  const { asksConsent } = useSettings();
  const captureId = useCaptureNow((now) => now.captureId);
  const hasConsent = useCaptureNow((now) => now.slips.some((s) => s.kind === 'consent'));
  const [closedFor, setClosedFor] = useState<string | null>(null);
  if (!asksConsent || hasConsent || !captureId || closedFor === captureId) return null;
  return (
    <PencilBox style={{ marginTop: 10 }}>
      <Type isBold>Is anyone with you? Tell them you are recording.</Type>
      <ConsentChoices onDone={() => setClosedFor(captureId)} />
    </PencilBox>
  );
}
