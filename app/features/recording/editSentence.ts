import { type Passage, passageText } from '@immeld/core/transcript/manuscript';

const LONGEST = 80;
const textOf = (passages: readonly Passage[]) => passages.map(passageText).join(' ');

/** The beginning of a text that is read aloud, cut between two words. */
function beginning(text: string): string {
  if (text.length <= LONGEST) return text;
  return `${text.slice(0, text.lastIndexOf(' ', LONGEST) + 1 || LONGEST).trimEnd()} …`;
}

/** What a change of passages did, for those who do not see it; null when another sentence tells it. */
export function editSentence(removed: readonly Passage[], added: readonly Passage[]): string | null {
  if (added.length > removed.length) return `Split. The new passage begins: ${beginning(textOf(added.slice(-1)))}`;
  if (added.length < removed.length) return `Merged with the previous passage: ${beginning(textOf(added))}`;
  const [before, now] = [removed, added].map((all) => textOf(all).split(' ').filter(Boolean));
  let from = 0;
  while (from < before!.length && before![from] === now![from]) from++;
  let fromEnd = 0;
  const most = Math.min(before!.length, now!.length) - from;
  while (fromEnd < most && before!.at(-1 - fromEnd) === now!.at(-1 - fromEnd)) fromEnd++;
  const [gone, come] = [before!, now!].map((words) => words.slice(from, words.length - fromEnd).join(' '));
  if (!gone && !come) return null;
  if (!gone) return `Added: ${beginning(come!)}`;
  if (!come) return `Removed: ${beginning(gone)}`;
  return `Replaced ${beginning(gone)} with ${beginning(come)}`;
}
