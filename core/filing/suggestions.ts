import { isStopword, stem, topicStems, wordsOf } from '../language/words';
import { type Example, mostProbableClass } from './bayes';
import { type Filed, featuresOf, withoutHabit } from './features';

/** A recording that is filed already, as an example to learn from. */
export type FiledExample = Filed & { folderId: string | null; tags: readonly string[]; project: string | null };
/** A folder or project with the other names it goes by. */
export type ShelfName = { id: string; name: string; otherNames?: readonly string[] };
export type Shelf = {
  folders: readonly ShelfName[];
  tags: readonly string[];
  projects: readonly Omit<ShelfName, 'id'>[];
};

export type FilingSuggestion = {
  folder: { id: string; probability: number } | null;
  /** Likeliest first. */
  tags: { name: string; probability: number }[];
  project: string | null;
};

const MAX_TAGS = 3;
/** Given fewer times, a tag that is not named has to be as good as certain. */
const LEARNT_FROM = 2;
const SURE = 0.95;
/** Given fewer times, the hour, the weekday and the source say nothing of a tag. */
const HABIT_FROM = 5;
const TAG_FROM = 0.6;
/** A name that was said counts like so many recordings filed there. */
const NAME_WEIGHT = 3;
/** Below this the mostProbableClass folder is not offered. */
const FOLDER_FROM = 0.35;

/**
 * Where a new recording belongs, from how its person filed before: naive Bayes over what was said, when, with whom and
 * during what, and the names of folders, projects and tags for the time when little is filed.
 */
export function suggestFiling(memo: Filed, filed: readonly FiledExample[], shelf: Shelf): FilingSuggestion {
  const own = featuresOf(memo);
  if (withoutHabit(own).size === 0) return { folder: null, tags: [], project: null };
  const examples = filed.map((f) => ({ ...f, features: featuresOf(f) }));
  const folders = labelled(
    own,
    examples.flatMap((e) => (e.folderId ? [{ features: e.features, label: e.folderId }] : [])),
    shelf.folders,
  );
  const byName = shelf.projects.map((p) => ({ ...p, id: p.name }));
  const projects = labelled(
    own,
    examples.flatMap((e) => (e.project ? [{ features: e.features, label: e.project }] : [])),
    byName,
  );
  const [folder] = folders;
  const [project] = projects;
  return {
    folder: folder && folder.probability >= FOLDER_FROM ? { id: folder.label, probability: folder.probability } : null,
    project: project && project.probability >= FOLDER_FROM ? project.label : null,
    tags: tagsFor(memo, own, examples, shelf.tags),
  };
}

/** The mostProbableClass of several, of which at most one holds; the words of their names are examples too. */
function labelled(own: ReadonlySet<string>, examples: readonly Example[], names: readonly ShelfName[]) {
  const named = names.map(({ id, name, otherNames = [] }): Example => {
    const features = new Set([name, ...otherNames].flatMap(topicStems));
    return { features, label: id, weight: NAME_WEIGHT };
  });
  const isNamed = named.some(({ features }) => [...features].some((f) => own.has(f)));
  if (examples.length === 0 && !isNamed) return [];
  const isThere = new Set(names.map((n) => n.id));
  return mostProbableClass(own, [...examples.filter((e) => isThere.has(e.label)), ...named]);
}

/** Each tag holds or does not, whatever the others do. */
function tagsFor(
  memo: Filed,
  own: ReadonlySet<string>,
  examples: readonly (FiledExample & { features: Set<string> })[],
  tags: readonly string[],
): FilingSuggestion['tags'] {
  const said = new Set(wordsOf(memo.text).map(stem));
  const found = tags.flatMap((name) => {
    const words = wordsOf(name).filter((w) => !isStopword(w));
    const isSaid = words.length > 0 && words.every((w) => said.has(stem(w)));
    const having = examples.filter((e) => e.tags.includes(name)).length;
    if (having === 0) return isSaid ? [{ name, probability: TAG_FROM }] : [];
    const [first] = mostProbableClass(having < HABIT_FROM ? withoutHabit(own) : own, [
      ...examples.map((e) => ({ features: e.features, label: e.tags.includes(name) ? 'yes' : 'no' })),
      ...(isSaid ? [{ features: new Set(words.map(stem)), label: 'yes', weight: NAME_WEIGHT }] : []),
    ]);
    const probability = first!.label === 'yes' ? first!.probability : 1 - first!.probability;
    const isSure = probability >= (having < LEARNT_FROM && !isSaid ? SURE : TAG_FROM);
    return isSure ? [{ name, probability }] : [];
  });
  return found.sort((a, b) => b.probability - a.probability || a.name.localeCompare(b.name)).slice(0, MAX_TAGS);
}
