import type { FORMS, WORDINGS } from '@immeld/core/contract/templates';

/** What people read for the choices of a template. */
export const FORM_NAMES: Record<(typeof FORMS)[number], string> = {
  ...{ text: 'text', points: 'bullets', numbered: 'numbered list', checks: 'checklist', table: 'table' },
};
export const WORDING_NAMES: Record<(typeof WORDINGS)[number], string> = {
  ...{ 'as said': 'as said', reported: 'reported speech', formal: 'formal', friendly: 'friendly', brief: 'brief' },
};
