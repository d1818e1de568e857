import * as yup from './yup';
import { byId, endpoint, none } from './endpoint';
import { type sheetSchema, templateSchema } from './templates';

const address = () =>
  yup
    .string()
    .trim()
    .max(500)
    .test('address', 'The address must begin with http:// or https://.', (v) => !v || /^https?:\/\/[^\s]+$/i.test(v));
const modelName = () => yup.string().trim().max(100, 'A name may have at most 100 characters.');
const seconds = () => yup.number().integer().min(5, 'Enter at least 5 seconds.').max(600, 'Enter at most 600 seconds.');

/** A language model of the person's own; off to begin with. The token is kept on the server and never told. */
export const languageModelSchema = yup.object({
  isOn: yup.boolean().required(),
  /** Below it `/chat/completions` answers. */
  address: yup.string().defined(),
  model: yup.string().defined(),
  hasToken: yup.boolean().required(),
  /** Longest time without a word from it. */
  timeoutSeconds: yup.number().required(),
  /** Whether the person has seen what is sent. */
  hasAgreed: yup.boolean().required(),
  /** Whether it is the simulated one that ships with the demo. */
  isStandIn: yup.boolean().required(),
});
export type LanguageModel = yup.InferType<typeof languageModelSchema>;

export const languageModelChangeSchema = yup
  .object({
    isOn: yup.boolean(),
    address: address(),
    model: modelName(),
    /** Empty: none. */
    token: yup.string().trim().max(500),
    timeoutSeconds: seconds(),
    hasAgreed: yup.boolean(),
  })
  .noUnknown();
export type LanguageModelChange = yup.InferType<typeof languageModelChangeSchema>;

const messageSchema = yup.object({
  role: yup
    .string()
    .oneOf(['system', 'user'] as const)
    .required(),
  content: yup.string().required(),
});
export type ChatMessage = yup.InferType<typeof messageSchema>;

export const modelRequestSchema = yup.object({
  address: yup.string().required(),
  model: yup.string().defined(),
  messages: yup.array().of(messageSchema.required()).required(),
  words: yup.number().integer().required(),
  /** Sentences of the recording that are sent, and how many it has. */
  sentencesSent: yup.number().integer().required(),
  sentences: yup.number().integer().required(),
});
export type ModelRequest = yup.InferType<typeof modelRequestSchema>;

/** One line of the answer while it is written: words as they come, at the end the write-up, and why if it is not the model's. */
export type ModelLine = { text?: string; sheet?: yup.InferType<typeof sheetSchema>; problem?: string };

const withTemplate = () => yup.object({ template: templateSchema.required() }).noUnknown();

export const LANGUAGE_MODEL_ENDPOINTS = {
  getLanguageModel: endpoint({
    method: 'get',
    path: '/language-model',
    summary: 'Your language model, without its token',
    params: none,
    query: none,
    body: null,
    response: languageModelSchema,
  }),
  changeLanguageModel: endpoint({
    method: 'patch',
    path: '/language-model',
    summary: 'Connect your own language model by its address, or switch it off',
    params: none,
    query: none,
    body: languageModelChangeSchema,
    response: languageModelSchema,
  }),
  tryLanguageModel: endpoint({
    method: 'post',
    path: '/language-model/trial',
    summary: 'Test the language model; nothing from a recording is sent',
    params: none,
    query: none,
    body: yup.object({}).noUnknown(),
    response: yup.object({ answer: yup.string().defined() }),
  }),
  describeModelRequest: endpoint({
    method: 'post',
    path: '/recordings/:id/model-request',
    summary: 'The exact text that a write-up would send to the language model',
    params: byId,
    query: none,
    body: withTemplate(),
    response: modelRequestSchema,
  }),
  makeModelSheet: endpoint({
    method: 'post',
    path: '/recordings/:id/model-sheets',
    summary: 'Make a write-up with the language model: JSON lines with words as they arrive, then the write-up',
    params: byId,
    query: none,
    body: withTemplate(),
    response: null,
    answers: 'application/x-ndjson',
  }),
};
