/** What is written in figures; each kind can be switched off. */
export const NUMERAL_KINDS = ['numbers', 'ordinals', 'times', 'dates', 'money', 'percent', 'digits', 'units'] as const;
export type NumeralKind = (typeof NUMERAL_KINDS)[number];
