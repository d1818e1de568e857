import type { MadeSection } from '@immeld/core/contract/templates';

type Groups = MadeSection['groups'];

/** The groups with their first lines, at most so many in all, and how many lines are left. */
export function firstLines(groups: Groups, most: number): { groups: Groups; left: number } {
  let room = most;
  let left = 0;
  const shown = groups.flatMap((group) => {
    const lines = group.lines.slice(0, room);
    room -= lines.length;
    left += group.lines.length - lines.length;
    return lines.length > 0 || group.lines.length === 0 ? [{ ...group, lines }] : [];
  });
  return { groups: shown, left };
}
