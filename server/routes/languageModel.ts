import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { LanguageModel, ModelLine, ModelRequest } from '@immeld/core/contract/languageModel';
import { Problem } from '@immeld/core/contract/problem';
import type { Template } from '@immeld/core/contract/templates';
import { sentencesOf } from '@immeld/core/language/sentences';
import { sectionsOfAnswer } from '@immeld/core/writeup/model/answer';
import { promptFor, sentencesToSend } from '@immeld/core/writeup/model/prompt';
import { Router } from 'express';
import { accountId } from '../accounts/currentAccount';
import { seal, unseal } from '../accounts/seal';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { type ChatTarget, ModelFailure, chat } from '../languageModel/chat';
import { LanguageModelRow } from '../models/languageModel';
import type { OutboundClient } from '../outbound/outboundClient';
import { Recording } from '../models/recording';
import { STAND_IN_MODEL } from '../standIns/languageModel';
import { passagesOf } from '../transcript/corrections';
import { saveWriteUpAsNote, sectionsOf } from '../writeUps/sheets';
import { sheetView } from '../views/sheetView';
import { serve } from './serve';

async function current(): Promise<LanguageModelRow> {
  const id = accountId() ?? FIRST_ACCOUNT;
  return (await LanguageModelRow.findByPk(id)) ?? LanguageModelRow.build({ accountId: id });
}

const view = (row: LanguageModelRow): LanguageModel => ({
  ...{ isOn: row.isOn, address: row.address, model: row.model, hasToken: Boolean(row.token) },
  ...{ timeoutSeconds: row.timeoutSeconds, hasAgreed: row.hasAgreed },
  isStandIn: row.address.endsWith(STAND_IN_MODEL),
});

function targetOf({ address, model, token, timeoutSeconds }: LanguageModelRow): ChatTarget {
  if (!address) throw new Problem('invalid-request', 'Add the address of your language model first.');
  return { address, model, token: token && unseal(token), timeoutSeconds };
}

async function asked(recordingId: string, template: Template) {
  const recording = await Recording.findByPk(recordingId);
  if (!recording) throw new Problem('not-found', 'This recording no longer exists.');
  const all = sentencesOf(await passagesOf(recording.id));
  const sent = sentencesToSend(all);
  return { recording, sentences: all.length, sent, messages: promptFor(template, sent) };
}

/** A language model of the person's own: connecting it, and write-ups by it. Without it nothing is missing. */
export function languageModelRoutes(outside: OutboundClient): Router {
  const router = Router();

  serve(router, ENDPOINTS.getLanguageModel, async () => view(await current()));
  serve(router, ENDPOINTS.changeLanguageModel, async ({ body }) => {
    const row = await current();
    const { token, ...rest } = body;
    // Somebody else's server has to be agreed to anew.
    const isElsewhere = rest.address !== undefined && rest.address !== row.address;
    row.set({ ...rest, ...(isElsewhere ? { hasAgreed: false } : {}) });
    if (token !== undefined) row.set({ token: token ? seal(token) : null });
    if (row.isOn && !row.address) throw new Problem('invalid-request', 'Add the address of your language model first.');
    return view(await row.save());
  });
  serve(router, ENDPOINTS.tryLanguageModel, async () => {
    try {
      let answer = '';
      const asking = { role: 'user', content: 'Say in a few words that you are there.' } as const;
      for await (const words of chat(targetOf(await current()), [asking], outside)) {
        answer += words;
      }
      return { answer: answer.slice(0, 500) };
    } catch (error) {
      if (error instanceof ModelFailure) throw new Problem('not-possible-now', error.message, 'Nothing was changed.');
      throw error;
    }
  });
  serve(router, ENDPOINTS.describeModelRequest, async ({ params, body }): Promise<ModelRequest> => {
    const { sentences, sent, messages } = await asked(params.id, body.template);
    const { address, model } = await current();
    const words = messages.reduce((sum, m) => sum + m.content.split(/\s+/).length, 0);
    return { address, model, messages, words, sentencesSent: sent.length, sentences };
  });
  serve(router, ENDPOINTS.makeModelSheet, async ({ params, body: { template }, response }) => {
    const { recording, sent, messages } = await asked(params.id, template);
    const row = await current();
    if (!row.isOn)
      throw new Problem('invalid-request', 'The language model is switched off. Switch it on in the settings.');
    if (!row.hasAgreed) throw new Problem('invalid-request', 'Review what will be sent first.');
    const target = targetOf(row);
    response.type('application/x-ndjson');
    const line = (said: ModelLine) => void response.write(`${JSON.stringify(said)}\n`);
    const gone = new AbortController();
    response.once('close', () => gone.abort());
    let answer = '';
    let problem: string | undefined;
    try {
      for await (const text of chat(target, messages, outside, gone.signal)) {
        answer += text;
        line({ text });
      }
    } catch (error) {
      if (!(error instanceof ModelFailure)) throw error;
      problem = error.message;
    }
    if (gone.signal.aborted) return;
    const byModel = problem ? [] : sectionsOfAnswer(answer, template, sent);
    if (!problem && byModel.length === 0) problem = 'The language model’s answer could not be used.';
    const sections = problem ? await sectionsOf(recording.id, template) : byModel;
    const sheet = sheetView(await saveWriteUpAsNote(recording.id, template, sections, !problem));
    line({ sheet, ...(problem ? { problem } : {}) });
    response.end();
  });
  return router;
}
