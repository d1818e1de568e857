import type { Folder } from '@immeld/core/contract/shelves';
import { announcementsOf, changeByDrop, inOrder, isWithin } from './folderTree';

const folder = (id: string, parentId: string | null, position: number, itemCount = 1): Folder => ({
  ...{ id, name: id, tint: 'petrol', parentId, position, itemCount },
});
const folders = [
  folder('b', null, 1),
  folder('a', null, 0),
  folder('a2', 'a', 1, 2),
  folder('a1', 'a', 0, 3),
  folder('deep', 'a1', 0, 4),
];

it('puts each folder before those inside it, in order of hand', () => {
  expect(inOrder(folders).map((f) => [f.folder.id, f.depth, f.total])).toEqual([
    ['a', 0, 10],
    ['a1', 1, 7],
    ['deep', 2, 4],
    ['a2', 1, 2],
    ['b', 0, 1],
  ]);
  expect(inOrder(folders)[2]!.path).toEqual(['a', 'a1']);
});

it('shows a folder whose outer one is removed on its own', () => {
  expect(inOrder([folder('x', 'gone', 0)]).map((f) => f.depth)).toEqual([0]);
});

it('knows what lies within what', () => {
  const [deep, b] = [folders[4]!, folders[0]!];
  expect([isWithin(deep, 'a', folders), isWithin(b, 'a', folders), isWithin(b, 'b', folders)]).toEqual([
    true,
    false,
    true,
  ]);
});

const [a, b, c] = [folder('a', null, 0), folder('b', null, 1), folder('c', null, 2)];
const inner = folder('inner', 'a', 0);
const all = [a, b, c, inner];

describe('a folder that is dropped', () => {
  it.each([
    ['into another one', c, 'into a', { parentId: 'a' }],
    ['before the first', c, 'before a', { parentId: null, position: 0 }],
    ['before one that comes later', a, 'before c', { parentId: null, position: 1 }],
    ['beside what is inside', b, 'before inner', { parentId: 'a', position: 0 }],
    ['into itself', a, 'into a', null],
    ['into what is inside it', a, 'into inner', null],
    ['where it is already', inner, 'into a', null],
  ])('%s', (_, moved, target, change) => expect(changeByDrop(moved, target, all)).toEqual(change));
});

it('says a drag by the names of the folders', () => {
  const named = [
    { id: '1', name: 'Quay' },
    { id: '2', name: 'Soil' },
  ];
  const { onDragStart, onDragOver, onDragEnd, onDragCancel } = announcementsOf(named);
  const drag = (over: string | null) => ({ active: { id: '1' }, over: over && { id: over } }) as never;
  expect([onDragStart(drag(null)), onDragOver(drag('into 2')), onDragEnd(drag('before 2'))]).toEqual([
    ...['Picked up Quay.', 'Drop Quay into Soil.', 'Quay moved before Soil.'],
  ]);
  expect([onDragOver(drag(null)), onDragEnd(drag(null)), onDragCancel(drag(null))]).toEqual([
    ...[undefined, 'Quay stays where it was.', 'Quay stays where it was.'],
  ]);
});
