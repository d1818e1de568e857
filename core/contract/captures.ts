import { wordSchema } from './recordings';
import * as yup from './yup';

/** What the server has of a capture: the device lets go of its own copy only when this hash is that of its sound. */
export const captureReceiptSchema = yup.object({
  recordingId: yup.string().uuid().required(),
  sha256: yup.string().length(64).required(),
  sizeBytes: yup.number().integer().required(),
});
export type CaptureReceipt = yup.InferType<typeof captureReceiptSchema>;

/** So many words are sent at once; an hour of speech has about 9,000. */
export const MAX_WORDS_AT_ONCE = 5000;
/**
 * Words that a device heard while it recorded, in the order of time; they follow those that were sent before. Sent twice
 * they are taken once.
 */
export const deviceWordsSchema = yup
  .object({
    words: yup.array().of(wordSchema.required()).max(MAX_WORDS_AT_ONCE).required(),
  })
  .noUnknown();
export type DeviceWords = yup.InferType<typeof deviceWordsSchema>;

/** A language or model that can be fetched once and then works on the device without a network. */
export const packSchema = yup.object({
  name: yup.string().required(),
  title: yup.string().required(),
  language: yup.string().required(),
  licence: yup.string().required(),
  files: yup
    .array()
    .of(
      yup
        .object({
          address: yup.string().required(),
          sizeBytes: yup.number().integer().required(),
          /** What goes over the line when the browser takes gzip. */
          sentBytes: yup.number().integer().required(),
          sha256: yup.string().length(64).required(),
        })
        .required(),
    )
    .required(),
});
export type Pack = yup.InferType<typeof packSchema>;
