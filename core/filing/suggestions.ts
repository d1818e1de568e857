import { cosine, tfIdfVectors } from '../language/summary';
import { isStopword, stem, topicStems, wordsOf } from '../language/words';

/** A recording that is filed already, as an example to learn from. */
export type FiledExample = { text: string; folderId: string | null; tags: readonly string[] };
export type FolderName = { id: string; name: string; otherNames?: readonly string[] };

export type FilingSuggestion = {
  folder: { id: string; score: number } | null;
  tags: { name: string; score: number }[];
};

const MOST_TAGS = 3;
const TAG_THRESHOLD = 0.3;
const FOLDER_THRESHOLD = 0.12;
const NEIGHBOURS = 7;

/**
 * Where a new recording belongs, from how its person filed before: nearest neighbours over TF-IDF vectors
 * (Manning, Raghavan and Schütze 2008, Introduction to Information Retrieval, section 14.3), and the words of folder
 * and tag names for the time when little is filed.
 */
export function suggestFiling(
  text: string,
  filed: readonly FiledExample[],
  folders: readonly FolderName[],
  tags: readonly string[],
): FilingSuggestion {
  const vectors = tfIdfVectors([topicStems(text), ...filed.map((f) => topicStems(f.text))]);
  const [own, ...others] = vectors as [Map<string, number>, ...Map<string, number>[]];
  const near = others
    .map((vector, i) => ({ example: filed[i]!, similarity: cosine(own, vector) }))
    .filter((n) => n.similarity > 0.03)
    .sort((a, b) => b.similarity - a.similarity)
    .slice(0, NEIGHBOURS);

  const folderScores = new Map<string, number>();
  const tagScores = new Map<string, number>();
  const add = (scores: Map<string, number>, key: string, score: number) =>
    scores.set(key, (scores.get(key) ?? 0) + score);
  for (const { example, similarity } of near) {
    if (example.folderId) add(folderScores, example.folderId, similarity);
    for (const tag of example.tags) add(tagScores, tag, similarity * 1.5);
  }
  const said = new Map<string, number>();
  for (const w of wordsOf(text)) said.set(stem(w), (said.get(stem(w)) ?? 0) + 1);
  for (const folder of folders) {
    const best = Math.max(...[folder.name, ...(folder.otherNames ?? [])].map((name) => nameScore(name, said)));
    if (best > 0) add(folderScores, folder.id, best);
  }
  for (const tag of tags) {
    const score = nameScore(tag, said);
    if (score > 0) add(tagScores, tag, score);
  }
  const [folder] = ranked(folderScores);
  return {
    folder: folder && folder[1] >= FOLDER_THRESHOLD ? { id: folder[0], score: folder[1] } : null,
    tags: ranked(tagScores)
      .filter(([, score]) => score >= TAG_THRESHOLD)
      .slice(0, MOST_TAGS)
      .map(([name, score]) => ({ name, score })),
  };
}

const ranked = (scores: Map<string, number>): [string, number][] =>
  [...scores].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));

/** Share of a name's words that were said, more when said often. */
function nameScore(name: string, said: Map<string, number>): number {
  const words = wordsOf(name)
    .filter((w) => !isStopword(w))
    .map(stem);
  if (words.length === 0) return 0;
  const hits = words.filter((w) => said.has(w));
  if (hits.length === 0) return 0;
  const times = hits.reduce((sum, w) => sum + said.get(w)!, 0) / hits.length;
  return (hits.length / words.length) * (0.3 + 0.15 * Math.log2(1 + times));
}
