import type { LiveText } from './liveText';
import { type SourceChoice, SourceProblem, openSources } from './sources';
import { openPcmStream } from './pcmStream';

/** A question ends when its last piece is closed by a pause, and nothing was added for this long. */
const QUIET_MS = 1800;
/** In a noise that never pauses it ends when no word was added for this long. */
const QUIET_IN_NOISE_MS = 5400;
/** Nobody says anything for so long: it was pressed by mistake. */
const PATIENCE_MS = 8000;
const MAX_MS = 30_000;

export type Listening = { stop: () => void };

/**
 * Listens for one question with the recogniser on this device; nothing is recorded or sent.
 * @param onWords the words so far, again and again
 * @param onEnd the whole question, or a sentence that says why there is none
 */
export async function listenForQuestion(
  live: LiveText,
  source: SourceChoice,
  onWords: (text: string) => void,
  onEnd: (result: { text: string } | { problem: string }) => void,
  open: typeof openSources = openSources,
): Promise<Listening> {
  let sources;
  try {
    sources = await open({ ...source, microphone: true, screen: false });
  } catch (error) {
    onEnd({
      problem:
        error instanceof SourceProblem
          ? error.message
          : 'The microphone could not be opened. Check that the browser may use it, then try again.',
    });
    return { stop: () => undefined };
  }
  const tap = await openPcmStream(sources);
  const began = Date.now();
  let changedAt = began;
  let words = '';
  let isOver = false;
  const textOf = (list: readonly { text: string }[]) => list.map((w) => w.text).join(' ');
  live.begin();
  tap((samples, rate) => live.push(samples, rate));
  const unsubscribe = live.subscribe(() => {
    const { fixed, tentative } = live.state;
    const text = textOf([...fixed, ...tentative]);
    if (text === words) return;
    words = text;
    changedAt = Date.now();
    onWords(text);
  });
  const end = async () => {
    if (isOver) return;
    isOver = true;
    clearInterval(timer);
    unsubscribe();
    const text = textOf(await live.end()) || words;
    sources.close();
    if (live.state.state === 'failed')
      onEnd({
        problem: live.state.problem ?? 'This device could not transcribe what you said. Type your question instead.',
      });
    else onEnd(text ? { text } : { problem: 'No speech was heard. Press and ask again.' });
  };
  const timer = setInterval(() => {
    const now = Date.now();
    const isLoaded = live.state.state === 'on' || live.state.state === 'failed';
    const { tentative, lagMs } = live.state;
    // A slow device is still listening to what was said a while ago.
    const quietMs = (tentative.length ? QUIET_IN_NOISE_MS : QUIET_MS) + 2 * Math.max(0, lagMs);
    const isQuiet = words !== '' && now - changedAt > quietMs;
    const isSilent = words === '' && isLoaded && now - changedAt > PATIENCE_MS;
    // What loads longer than that is said by the state of the pack; the ear does not stay open for it.
    if (isQuiet || isSilent || now - began > MAX_MS || live.state.state === 'failed') void end();
    else if (!isLoaded) changedAt = now;
  }, 200);
  return { stop: () => void end() };
}
