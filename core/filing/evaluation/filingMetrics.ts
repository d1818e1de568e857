import { type FiledExample, suggestFiling } from '../suggestions';

export type FilingMetrics = {
  asked: number;
  /** Share of recordings whose folder was named first. */
  folderFirst: number;
  /** The same for naming the folder that was used most often so far. */
  mostFrequentFirst: number;
  /** Share of the tags that were given which were among the first three that were named. */
  tagRecall: number;
  /** Share of the named tags that were given. */
  tagPrecision: number;
};

const LEARNT_FROM = 300;

/**
 * How right the suggestions are, going through what was filed in order of time: each is suggested for from what came
 * before it alone.
 * @param filed in order of time; `folderId` is the name of the folder
 * @param after how many are filed before the counting begins
 */
export function filingMetrics(filed: readonly FiledExample[], after: number): FilingMetrics {
  const folders = [...new Set(filed.map((f) => f.folderId!))].map((name) => ({ id: name, name }));
  let folderFirst = 0;
  let mostFrequentFirst = 0;
  let given = 0;
  let named = 0;
  let right = 0;
  for (let i = after; i < filed.length; i++) {
    const before = filed.slice(Math.max(0, i - LEARNT_FROM), i);
    const memo = filed[i]!;
    const tags = [...new Set(before.flatMap((f) => f.tags))];
    const suggestion = suggestFiling(memo, before, { folders, tags, projects: [] });
    if (suggestion.folder?.id === memo.folderId) folderFirst++;
    if (mostFrequent(before) === memo.folderId) mostFrequentFirst++;
    given += memo.tags.length;
    named += suggestion.tags.length;
    right += suggestion.tags.filter((t) => memo.tags.includes(t.name)).length;
  }
  const asked = filed.length - after;
  return {
    asked,
    folderFirst: folderFirst / asked,
    mostFrequentFirst: mostFrequentFirst / asked,
    tagRecall: right / given,
    tagPrecision: right / named,
  };
}

function mostFrequent(filed: readonly FiledExample[]): string | null {
  const counts = new Map<string | null, number>();
  for (const { folderId } of filed) counts.set(folderId, (counts.get(folderId) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
