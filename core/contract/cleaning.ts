import type { Quality } from '../speech/packs';
import * as yup from './yup';

/** In how much care a recording is transcribed; each has a pack of its own. */
export const QUALITIES = ['quick', 'usual'] as const satisfies readonly Quality[];

const strength = () =>
  yup.number().min(0, 'The strength must be between 0 and 1.').max(1, 'A strength lies between 0 and 1.').default(0);

/** How much of each step of cleaning, from 0 (not at all) to 1. */
export const cleaningSchema = yup
  .object({
    clicks: strength(),
    lowCut: strength(),
    highCut: strength(),
    noise: strength(),
    loudness: strength(),
  })
  .noUnknown();

/**
 * A recognition made again: with the names of now, with the sound cleaned where something of it is wanted, by the pack that is
 * asked for or the server's own.
 */
export const againSchema = yup
  .object({
    cleaning: cleaningSchema,
    quality: yup.string().oneOf(QUALITIES, 'The quality must be quick or usual.').nullable().default(null),
  })
  .noUnknown();
