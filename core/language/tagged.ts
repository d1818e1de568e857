import nlp from 'compromise';

/** A word as the tagger (compromise) gives it: `pre` and `post` stand around it; `text` is empty for the second half of "I'll". */
export type TaggedTerm = { text: string; pre: string; post: string; tags: ReadonlySet<string> };

/** So many texts are kept: what is understood, titled and summed up in turn is tagged once. */
const MAX_KEPT = 600;
const kept = new Map<string, readonly TaggedTerm[]>();

/** The words of a text with their parts of speech. */
export function taggedTerms(text: string): readonly TaggedTerm[] {
  let terms = kept.get(text);
  if (terms) kept.delete(text);
  else terms = (nlp(text) as unknown as { termList(): TaggedTerm[] }).termList();
  kept.set(text, terms);
  if (kept.size > MAX_KEPT) kept.delete(kept.keys().next().value!);
  return terms;
}
