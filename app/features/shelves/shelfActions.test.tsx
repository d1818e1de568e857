import { useQuery } from '@tanstack/react-query';
import { screen, waitFor } from '@testing-library/react';
import { call } from '../../api/call';
import { useShelves } from '../../api/queries';
import { answering, mount } from '../../testing/mount';
import { FolderActions } from './shelfActions';

const mockNavigate = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ navigate: mockNavigate }) }));

const id = '00000000-0000-4000-8000-0000000000ff';
const folder = { id, name: 'Rain gardens', parentId: null, tint: 'petrol', position: 0, itemCount: 1 } as const;
const deedId = '00000000-0000-4000-8000-0000000000dd';

/** A page on which the shelf stands as long as there is one, beside something that the server answers slowly. */
function ShelfPage() {
  const { data } = useShelves();
  useQuery({ queryKey: ['todos'], queryFn: () => call('listTodos') });
  const found = data?.folders.find((f) => f.id === id);
  return found ? <FolderActions folder={found} /> : <p>No such shelf</p>;
}

test('a shelf that has left the page before all is refreshed leaves the way back, and one stands among the shelves', async () => {
  let folders = [folder];
  let answerLate = (_todos: object) => {};
  const late = new Promise<object>((resolve) => (answerLate = resolve));
  let asked = 0;
  const { sent } = answering({
    'GET /api/shelves': () => ({ folders, tags: [], projects: [], people: [] }),
    // Answered at once when the page opens; the second answer, after the removal, waits until the test lets it come.
    'GET /api/todos': () => (asked++ === 0 ? { items: [] } : late),
    [`PATCH /api/folders/${id}`]: () => {
      folders = [];
      return { deedId, text: '“Rain gardens” is removed.', count: 1 };
    },
    [`POST /api/history/${deedId}/undo`]: { undone: 1, kept: [] },
  });
  const { hand } = mount(<ShelfPage />);
  await hand.click(await screen.findByRole('button', { name: 'Remove folder' }));
  await screen.findByText('No such shelf');
  expect(mockNavigate).not.toHaveBeenCalled();
  answerLate({ items: [] });
  await screen.findByText('“Rain gardens” is removed.');
  expect(mockNavigate).toHaveBeenCalledWith('/shelves');
  await hand.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(sent().at(-1)?.address).toContain(deedId));
});
