import { AddressBlocked, type OutboundClient } from '../outbound/outboundClient';
import type { ChatMessage } from '@immeld/core/contract/languageModel';

export type ChatTarget = { address: string; model: string; token: string | null; timeoutSeconds: number };

/** Why a language model gave no answer, as a sentence for the person. */
export class ModelFailure extends Error {}

const MAX_ANSWER = 200_000;

/**
 * Asks a language model and yields its words as they come.
 * The form is that of chat completions as many servers speak it: JSON over HTTP, with `stream` as server-sent events
 * (WHATWG HTML, 9.2); a server that answers with one JSON document is understood too.
 * @throws ModelFailure where it does not answer, refuses, or is silent for longer than the time that is given
 */
export async function* chat(
  target: ChatTarget,
  messages: readonly ChatMessage[],
  outside: OutboundClient,
  signal?: AbortSignal,
): AsyncGenerator<string> {
  const silence = new AbortController();
  let timer = setTimeout(() => undefined, 0);
  const wait = () => {
    clearTimeout(timer);
    timer = setTimeout(() => silence.abort(), target.timeoutSeconds * 1000);
  };
  const signals = AbortSignal.any([silence.signal, ...(signal ? [signal] : [])]);
  wait();
  try {
    const response = await outside.fetch(`${target.address.replace(/(?<!\/)\/+$/, '')}/chat/completions`, {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        Accept: 'text/event-stream, application/json',
        ...(target.token ? { Authorization: `Bearer ${target.token}` } : {}),
      },
      body: JSON.stringify({ ...(target.model ? { model: target.model } : {}), messages, stream: true }),
      signal: signals,
    });
    if (!response.ok) throw new ModelFailure(refusal(response.status));
    if (!response.body) throw new ModelFailure('The language model sent an empty answer.');
    const isStream = (response.headers.get('Content-Type') ?? '').includes('event-stream');
    const decoder = new TextDecoder();
    let waiting = '';
    let length = 0;
    for await (const bytes of response.body) {
      wait();
      waiting += decoder.decode(bytes as Uint8Array, { stream: true });
      length += (bytes as Uint8Array).length;
      if (length > MAX_ANSWER * 8) throw new ModelFailure('The language model’s answer was too long.');
      if (!isStream) continue;
      const events = waiting.split(/\r?\n\r?\n/);
      waiting = events.pop() ?? '';
      for (const event of events) {
        const words = wordsOf(event);
        if (words === null) return;
        if (words) yield words;
      }
    }
    if (!isStream) yield wholeAnswer(waiting);
  } catch (error) {
    if (error instanceof ModelFailure) throw error;
    if (error instanceof AddressBlocked) throw new ModelFailure(error.message);
    if (silence.signal.aborted)
      throw new ModelFailure(`The language model did not answer for ${target.timeoutSeconds} seconds.`);
    if (signal?.aborted) throw new ModelFailure('Cancelled.');
    throw new ModelFailure('The language model cannot be reached at its address.');
  } finally {
    clearTimeout(timer);
  }
}

function refusal(status: number): string {
  if (status === 401 || status === 403) return 'The language model rejected the token. Check it in the settings.';
  if (status === 404) return 'There is no language model at this address, or it has a different name.';
  if (status === 429) return 'The language model is receiving too many requests. Try again later.';
  return `The language model reported error ${status}.`;
}

type Choice = { delta?: { content?: string | null }; message?: { content?: string | null } };
const contentOf = (json: string): string => {
  const [choice] = (JSON.parse(json) as { choices?: Choice[] }).choices ?? [];
  return choice?.delta?.content ?? choice?.message?.content ?? '';
};

/** The words of a server-sent event; null where it says that it is the last. */
function wordsOf(event: string): string | null {
  const data = event
    .split(/\r?\n/)
    .filter((line) => line.startsWith('data:'))
    .map((line) => line.slice(5).trim())
    .join('\n');
  if (data === '[DONE]') return null;
  try {
    return data ? contentOf(data) : '';
  } catch {
    throw new ModelFailure('The language model’s answer could not be read.');
  }
}

function wholeAnswer(json: string): string {
  try {
    return contentOf(json);
  } catch {
    throw new ModelFailure('This address does not belong to a language model.');
  }
}
