import { screen } from '@testing-library/react';
import { format, startOfMonth, startOfWeek } from 'date-fns';
import { useState } from 'react';
import { answering, mount } from '../../testing/mount';
import { FilterChips } from './filterChips';

const id = '00000000-0000-4000-8000-000000000001';
const shelves = {
  folders: [{ id, name: 'Field work', parentId: null, tint: 'petrol', position: 0 }],
  ...{ tags: [{ name: 'soil' }, { name: 'late' }], people: [{ id, name: 'Petra Sund', otherNames: [] }], projects: [] },
};
let typed: string;
function Bar({ first }: { first: string }) {
  const [text, setText] = useState(first);
  typed = text;
  return <FilterChips typed={text} onChange={setText} />;
}
const begin = async (first: string) => {
  answering({ 'GET /api/shelves': shelves });
  const { hand } = mount(<Bar first={first} />);
  await screen.findByRole('button', { name: 'Tag' });
  return (name: string) => hand.click(screen.getByRole('button', { name }));
};

test('a tapped filter writes its word behind what is looked for', async () => {
  const press = await begin('lime tree');
  await press('Tag');
  await press('soil');
  expect(typed).toBe('lime tree tag:soil');
  await press('Folder');
  await press('Field work');
  await press('Person');
  await press('Petra Sund');
  expect(typed).toMatch(/^lime tree /);
  expect(
    typed
      .split(/ (?=\w+:)/)
      .slice(1)
      .sort(),
  ).toEqual(['in:"Field work"', 'person:"Petra Sund"', 'tag:soil']);
});

test('the same filter twice is one, and each is taken off with a tap', async () => {
  const press = await begin('tag:soil has:todo lime');
  await press('Tag');
  await press('soil');
  expect(typed.match(/tag:soil/g)).toHaveLength(1);
  await press('Remove filter: with to-dos');
  expect(typed).toBe('lime tag:soil');
  expect(screen.queryByRole('button', { name: 'Clear filters' })).toBeNull();
});

test('all are taken off at once, and the words stay', async () => {
  const press = await begin('"field capacity" -clay tag:soil tag:late after:2026-03-01');
  await press('Clear filters');
  expect(typed).toBe('"field capacity" -clay');
});

test('times are days of the calendar: this week begins on Monday, and before this month ends with the last', async () => {
  const day = (date: Date) => format(date, 'yyyy-MM-dd');
  const press = await begin('');
  await press('Date');
  await press('this week');
  expect(typed).toBe(`after:${day(startOfWeek(new Date(), { weekStartsOn: 1 }))}`);
  await press('Date');
  await press('before this month');
  expect(typed).toBe(`before:${day(startOfMonth(new Date()))}`);
});
