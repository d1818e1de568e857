import type { Shelves } from '@immeld/core/contract/shelves';
import type { ListFilter } from '../../api/queries';
import type { Where } from '../tray/selectionBar';

/** What a shelf page shows, from its address. */
export type Shelf = {
  title: string;
  filter: ListFilter;
  where: Where;
  empty: { title: string; text: string };
};

const USUAL = {
  title: 'Nothing here yet',
  text: 'Recordings and notes you file here appear on this shelf, newest first.',
};

/**
 * @param id of a folder, or `all`, `favourites`, `archive`, `bin`, `tag`, `person`, `project`
 * @param more the name of the tag, or the id of the person or project
 */
export function shelfOf(id: string, more: { name?: string; of?: string }, shelves: Shelves | undefined): Shelf {
  switch (id) {
    case 'all':
      return { title: 'Everything', filter: { place: 'all' }, where: 'shelf', empty: USUAL };
    case 'favourites':
      return {
        ...{ title: 'Favourites', filter: { place: 'favourites' }, where: 'shelf' },
        empty: {
          title: 'No favourites yet',
          text: 'To add a favourite, open a recording or note and choose “Add to favourites” under “About”.',
        },
      };
    case 'archive':
      return {
        ...{ title: 'Archive', filter: { place: 'archive' }, where: 'archive' },
        empty: {
          title: 'The archive is empty',
          text: 'Archived items leave the shelves. You can still find them here and by searching.',
        },
      };
    case 'bin':
      return {
        ...{ title: 'Bin', filter: { place: 'bin' }, where: 'bin' },
        empty: { title: 'The bin is empty', text: 'Items you move to the bin stay here for 30 days.' },
      };
    case 'tag':
      return { title: more.name ?? '', filter: { place: 'all', tag: more.name ?? '' }, where: 'shelf', empty: USUAL };
    case 'person':
    case 'project': {
      const named = (id === 'person' ? shelves?.people : shelves?.projects)?.find((n) => n.id === more.of);
      const by = id === 'person' ? { personId: more.of ?? '' } : { projectId: more.of ?? '' };
      return { title: named?.name ?? '', filter: { place: 'all', ...by }, where: 'shelf', empty: USUAL };
    }
    default: {
      const folder = shelves?.folders.find((f) => f.id === id);
      return { title: folder?.name ?? '', filter: { place: 'shelves', folderId: id }, where: 'shelf', empty: USUAL };
    }
  }
}
