import { type Cleaning, NO_CLEANING } from '@immeld/core/audio/cleaning/cleaner';
import { useSyncExternalStore } from 'react';
import { type SourceChoice, USUAL_SOURCE } from '../capture/sources';
import { Listeners } from '../state/listeners';

/** What a person has set on this device. */
export type Settings = {
  source: SourceChoice;
  /** Whether a card asks about consent when a recording begins. */
  asksConsent: boolean;
  /** Fetch the pack of words by itself when the line is not paid by volume. */
  fetchesPack: boolean;
  /** Whether the offer of the pack was answered. */
  isPackAnswered: boolean;
  /** Height of the picture of a video in pixels; 0 hides it. */
  videoHeight: number;
  /** Whether the slide of the second is shown above the words. */
  showsSlides: boolean;
  /** Length of a sitting. */
  studyMinutes: number;
  /** Listening: lengths of the skips and whether pauses longer than this are left out. */
  skipBackMs: number;
  skipForwardMs: number;
  skipsPauses: boolean;
  pauseMs: number;
  /** Size of the words of a recording, times the usual one. */
  textScale: number;
  /** Words less sure than this, from 0 to 1, are marked as doubtful. */
  doubtfulBelow: number;
  /** Order of the tray: when it came, or when it was recorded. */
  traySort: 'arrived' | 'newest';
  /** What is done to the sound while listening. */
  cleaning: Cleaning;
};

export const USUAL: Settings = {
  ...{ source: USUAL_SOURCE, asksConsent: false, fetchesPack: true, isPackAnswered: false },
  videoHeight: 180,
  showsSlides: true,
  studyMinutes: 15,
  ...{ skipBackMs: 10_000, skipForwardMs: 10_000, skipsPauses: false, pauseMs: 1000 },
  ...{ textScale: 1, doubtfulBelow: 0.5, cleaning: NO_CLEANING, traySort: 'arrived' },
};
const KEY = 'immeld-settings';

let known: Settings | null = null;
const listeners = new Listeners();

export function settings(): Settings {
  if (known) return known;
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>;
    known = {
      ...USUAL,
      ...kept,
      source: { ...USUAL_SOURCE, ...kept.source },
      cleaning: { ...NO_CLEANING, ...kept.cleaning },
    };
  } catch {
    known = USUAL;
  }
  return known;
}

export function changeSettings(part: Partial<Settings>): void {
  known = { ...settings(), ...part };
  try {
    localStorage.setItem(KEY, JSON.stringify(known));
  } catch {
    // A browser that keeps nothing: the choice holds as long as this page.
  }
  listeners.tell();
}

export const useSettings = (): Settings => useSyncExternalStore(listeners.subscribe, settings, settings);
