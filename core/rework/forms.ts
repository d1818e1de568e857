import { sentencesAt } from './pieces';

/** A text as points: each sentence is one. */
export const asPoints = (text: string): string[] => sentencesAt(text).map((s) => s.text);

const LABELLED = /^(.{2,48}?)(?::| –| (?:is|are|was|were|costs?|has|have|holds?|needs?|takes?|will be)) (.+?)[.]?$/iu;

/** A text as a table of two columns: what is spoken of, and what is said of it; where that cannot be told, one cell. */
export const asTable = (text: string): [string, string][] =>
  asPoints(text).map((sentence): [string, string] => {
    const [, label, said] = LABELLED.exec(sentence) ?? [];
    return label && said && label.split(/\s+/).length <= 6 ? [label, said] : ['', sentence];
  });
