/** What is written in figures; each kind can be switched off. */
export const FIGURE_KINDS = ['numbers', 'ordinals', 'times', 'dates', 'money', 'percent', 'digits', 'units'] as const;
export type FigureKind = (typeof FIGURE_KINDS)[number];
