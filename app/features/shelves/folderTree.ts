import type { Announcements } from '@dnd-kit/core';
import type { Folder, FolderChange } from '@immeld/core/contract/shelves';

export type PlacedFolder = {
  folder: Folder;
  depth: number;
  /** Names of the folders around it, outermost first. */
  path: string[];
  /** With everything that lies in folders inside it. */
  total: number;
};

/** Folders as they are read: each followed by those inside it, neighbours in order of hand. */
export function inOrder(folders: readonly Folder[]): PlacedFolder[] {
  const ids = new Set(folders.map((f) => f.id));
  const inside = (parentId: string | null) =>
    folders
      .filter((f) => (f.parentId && ids.has(f.parentId) ? f.parentId : null) === parentId)
      .sort((a, b) => a.position - b.position || a.name.localeCompare(b.name));
  const walk = (parentId: string | null, path: string[]): PlacedFolder[] =>
    inside(parentId).flatMap((folder) => {
      const below = walk(folder.id, [...path, folder.name]);
      const total =
        folder.itemCount + below.filter((b) => b.depth === path.length + 1).reduce((n, b) => n + b.total, 0);
      return [{ folder, depth: path.length, path, total }, ...below];
    });
  return walk(null, []);
}

/** Whether a folder is another one or lies inside it, however deep. */
export function isWithin(folder: Folder, outer: string, folders: readonly Folder[]): boolean {
  const byId = new Map(folders.map((f) => [f.id, f]));
  for (let at: Folder | undefined = folder; at; at = at.parentId ? byId.get(at.parentId) : undefined) {
    if (at.id === outer) return true;
  }
  return false;
}

/** What a drop changes; null where it changes nothing or would put a folder into itself. */
export function changeByDrop(moved: Folder, target: string, folders: readonly Folder[]): FolderChange | null {
  const [place, id] = target.split(' ') as ['into' | 'before', string];
  const other = folders.find((f) => f.id === id);
  if (!other || isWithin(other, moved.id, folders)) return null;
  if (place === 'into') return other.id === moved.parentId ? null : { parentId: other.id };
  const neighbours = folders
    .filter((f) => f.parentId === other.parentId && f.id !== moved.id)
    .sort((a, b) => a.position - b.position || a.name.localeCompare(b.name));
  return { parentId: other.parentId, position: neighbours.findIndex((f) => f.id === other.id) };
}

/** What is said of a drag to those who do not see it. */
export function announcementsOf(folders: readonly Pick<Folder, 'id' | 'name'>[]): Announcements {
  const nameOf = (id: string | number) => folders.find((f) => f.id === id)?.name ?? 'The folder';
  const at = (over: { id: string | number } | null) => {
    const [place, id] = String(over?.id).split(' ');
    return over && id ? `${place} ${nameOf(id)}` : undefined;
  };
  return {
    onDragStart: ({ active }) => `Picked up ${nameOf(active.id)}.`,
    onDragOver: ({ active, over }) => (at(over) ? `Drop ${nameOf(active.id)} ${at(over)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      at(over) ? `${nameOf(active.id)} moved ${at(over)}.` : `${nameOf(active.id)} stays where it was.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
  };
}
