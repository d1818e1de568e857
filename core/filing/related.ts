import { cosine, tfIdfVectors } from '../language/summary';
import { isStopword, stem, wordsOf } from '../language/words';

/** A recording or note, as far as it tells what belongs beside it. */
export type RelatedCandidate<R> = {
  text: string;
  people: readonly string[];
  project: string | null;
  tags: readonly string[];
  appointment: string | null;
  ref: R;
};

const MOST = 5;
const LEAST = 0.08;
const WEIGHTS = { text: 1, people: 0.12, project: 0.06, tags: 0.05, appointment: 0.25 };
const MAX_COMMON_WORDS = 2;

const listed = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0]!;

/**
 * What belongs beside something, closest first, each with the reason. Closeness is the cosine of TF-IDF vectors of the
 * words, more for people, project, tags and appointment in common.
 */
export function relatedTo<R>(
  own: RelatedCandidate<R>,
  others: readonly RelatedCandidate<R>[],
): { ref: R; reason: string; score: number }[] {
  const all = [own, ...others];
  const forms = all.map((r) => wordsOf(r.text).filter((w) => !isStopword(w) && w.length > 2));
  const vectors = tfIdfVectors(forms.map((words) => words.map(stem)));
  const written = new Map<string, string>();
  for (const word of forms[0]!) if (!written.has(stem(word))) written.set(stem(word), word);
  return others
    .map((other, i) => {
      const vector = vectors[i + 1]!;
      const people = other.people.filter((p) => own.people.includes(p));
      const tags = other.tags.filter((t) => own.tags.includes(t));
      const isSameProject = own.project !== null && other.project === own.project;
      const isSameAppointment = own.appointment !== null && other.appointment === own.appointment;
      const common = [...vectors[0]!]
        .map(([s, weight]) => ({ s, weight: weight * (vector.get(s) ?? 0) }))
        .filter((c) => c.weight > 0.004)
        .sort((a, b) => b.weight - a.weight)
        .slice(0, MAX_COMMON_WORDS)
        .map(({ s }) => written.get(s)!);
      const score =
        WEIGHTS.text * cosine(vectors[0]!, vector) +
        WEIGHTS.people * Math.min(2, people.length) +
        WEIGHTS.project * Number(isSameProject) +
        WEIGHTS.tags * Math.min(2, tags.length) +
        WEIGHTS.appointment * Number(isSameAppointment);
      const reasons = [
        ...(isSameAppointment ? [`the same appointment`] : []),
        ...(people.length ? [`both include ${listed(people)}`] : []),
        ...(common.length ? [`both mention ${listed(common)}`] : []),
        ...(isSameProject ? [`both belong to ${own.project}`] : []),
        ...(tags.length ? [`both are tagged ${listed(tags)}`] : []),
      ];
      return { ref: other.ref, reason: reasons.slice(0, 2).join('; '), score };
    })
    .filter((r) => r.score >= LEAST && r.reason !== '')
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST);
}
