import { sentencesAt } from './pieces';

/** A text as points: each sentence is one. */
export const asPoints = (text: string): string[] => sentencesAt(text).map((s) => s.text);

/** "Is" and a colon say no more than two columns do; every other verb goes along with what is said. */
const LABELLED =
  /^([^,]{2,48}?)(?:(?::| –| (?:is|are)) |(?= (?:was|were|costs?|has|have|holds?|needs?|takes?|will be) ))(.+?)[.]?$/iu;
const PRONOUN = /(?<!\p{L})(?:i|you|he|she|it|we|they|there|who|which|what)(?!\p{L})|^(?:this|that)$/iu;

/** A text as a table of two columns: what is spoken of, and what is said of it; where that cannot be told, one cell. */
export const asTable = (text: string): [string, string][] =>
  asPoints(text).map((sentence): [string, string] => {
    const [, label, said] = LABELLED.exec(sentence) ?? [];
    const isLabel = label && said && label.split(/\s+/).length <= 6 && !PRONOUN.test(label);
    return isLabel ? [label, said.trim()] : ['', sentence];
  });
