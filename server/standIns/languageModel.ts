import { type RequestHandler, Router, json } from 'express';

/** Where the simulated language model answers in the demo. */
export const STAND_IN_MODEL = '/standins/language-model';
export const STAND_IN_MODEL_NAME = 'stand-in';

const BETWEEN_WORDS_MS = 4;

type Asked = { messages?: { role?: string; content?: string }[] };

/**
 * A stand-in for a language model: it understands nothing. Under each heading that it is asked for it repeats some of
 * the numbered sentences with their numbers, and once it writes a sentence that rests on nothing, as real ones do.
 */
export function answerOfStandIn(messages: NonNullable<Asked['messages']>): string {
  const asked = messages.findLast((m) => m.role === 'user')?.content ?? '';
  const headings = [...asked.matchAll(/^## (.+)$/gm)].map((m) => m[1]!);
  const sentences = [...asked.matchAll(/^\[(\d+)\](?: \([^)]*\))? (.+)$/gm)].map((m) => ({ n: m[1]!, text: m[2]! }));
  if (headings.length === 0 || sentences.length === 0) return 'This is the stand-in. It is working.';
  const step = Math.max(1, Math.floor(sentences.length / (headings.length * 2)));
  return headings
    .map((heading, h) => {
      const lines = [0, 1].flatMap((i) => sentences[(h * 2 + i) * step] ?? []);
      const invented = h === 0 ? ['- The stand-in wrote this sentence itself.'] : [];
      return [`## ${heading}`, ...lines.map((s) => `- ${s.text} [${s.n}]`), ...invented].join('\n');
    })
    .join('\n\n');
}

const answer: RequestHandler = (request, response) => {
  const { messages = [], stream } = request.body as Asked & { stream?: boolean };
  const words = answerOfStandIn(messages).split(/(?<= )|(?<=\n)/);
  if (!stream) {
    response.json({ choices: [{ message: { content: words.join('') } }] });
    return;
  }
  response.type('text/event-stream');
  const send = () => {
    const content = words.shift();
    if (content === undefined || response.destroyed) {
      response.end('data: [DONE]\n\n');
      return;
    }
    response.write(`data: ${JSON.stringify({ choices: [{ delta: { content } }] })}\n\n`);
    setTimeout(send, BETWEEN_WORDS_MS);
  };
  send();
};

export function standInLanguageModel(): Router {
  const router = Router();
  router.post(`${STAND_IN_MODEL}/chat/completions`, json({ limit: '2mb' }), answer);
  return router;
}
