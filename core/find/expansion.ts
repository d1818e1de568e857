import { isStopword, stem } from '../language/words';
import type { QuestionTerm } from './question';
import type { WordVectors } from './wordVectors';

/** What is known of the words of an archive. */
export type Archive = {
  /** How many documents a stem stands in, and how many there are. */
  documentsWith(stem: string): number;
  documents: number;
  vectors: WordVectors | null;
};

/** A term of a question with every stem that meets it, and how well: 1 for itself. */
export type Expanded = QuestionTerm & { idf: number; metBy: ReadonlyMap<string, number> };

const ALIKE = 0.6;
const MAX_ALIKE = 40;
const LIKE_MEANING = 0.8;

/**
 * Words that may stand for the words of a question: those of like meaning by word vectors. Weighed by rarity (Robertson
 * 2004, Understanding Inverse Document Frequency). Words that sound alike were tried too: "flight" then met "right", and
 * more questions without an answer were answered than misheard words found.
 */
export function expand(terms: readonly QuestionTerm[], { vectors, documents, documentsWith }: Archive): Expanded[] {
  return terms.map((term) => {
    const metBy = new Map([[term.stem, 1]]);
    for (const [word, similarity] of vectors?.alike(term.word, ALIKE, MAX_ALIKE) ?? []) {
      const other = stem(word);
      if (!isStopword(word) && !metBy.has(other) && documentsWith(other) > 0)
        metBy.set(other, similarity * LIKE_MEANING);
    }
    // A word that nobody has said counts like one said once: a question may be put in other words.
    const said = Math.max(1, documentsWith(term.stem));
    return { ...term, idf: term.weight * Math.log(1 + (documents + 1) / (said + 0.5)), metBy };
  });
}
