import { screen, waitFor } from '@testing-library/react';
import { answering, mount, Refusal } from '../../testing/mount';
import { TodoEntry } from './todoEntry';

jest.mock('../../ui/useListening', () => ({ useListening: () => ({ isOn: false, toggle: () => undefined }) }));

const PROJECT = { id: '00000000-0000-4000-8000-000000000001', name: 'Orchard', otherNames: [] };
const shelves = { folders: [], tags: [], projects: [PROJECT], people: [] };
const entry = () => screen.getByRole('textbox', { name: 'Add a to-do' }) as HTMLInputElement;

const JUN = { id: '00000000-0000-4000-8000-000000000002', name: 'Jun Fairweather', otherNames: [] };

test('what is understood of a line stands below it before it is added, and is what is sent', async () => {
  const server = answering({ 'GET /api/shelves': shelves, 'POST /api/todos': {} });
  const { hand } = mount(<TodoEntry />);
  expect(screen.getByText(/^Write it as you would say it/)).toBeTruthy();
  await hand.type(entry(), 'Call the nursery tomorrow for the orchard, urgent');
  expect(screen.getByText('Will be added with: tomorrow · Orchard · high priority')).toBeTruthy();
  expect(server.sent()).toEqual([]);
  await hand.keyboard('{Enter}');
  await waitFor(() => expect(server.sent()).toHaveLength(1));
  expect(server.sent()[0]).toMatchObject({
    body: {
      text: 'Call the nursery',
      project: 'Orchard',
      priority: 'high',
      due: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    },
  });
  expect(Object.keys(server.sent()[0]!.body as object)).not.toContain('namedPerson');
  expect(entry().value).toBe('');
});

test('a chip is changed with a tap, and goes back into the text with its cross', async () => {
  const server = answering({ 'GET /api/shelves': { ...shelves, people: [JUN] }, 'POST /api/todos': {} });
  const { hand } = mount(<TodoEntry />);
  await hand.type(entry(), 'Call Jun tomorrow, urgent');
  await hand.click(screen.getByRole('button', { name: 'high priority. Change' }));
  await hand.click(screen.getByRole('radio', { name: 'low' }));
  await hand.click(screen.getByRole('button', { name: 'Put tomorrow back into the text' }));
  await hand.click(await screen.findByRole('button', { name: 'Assign to Jun Fairweather' }));
  expect(screen.getByText('Will be added with: Jun Fairweather · low priority')).toBeTruthy();
  await hand.click(screen.getByRole('button', { name: 'Add' }));
  await waitFor(() => expect(server.sent()).toHaveLength(1));
  expect(server.sent()[0]).toMatchObject({
    body: { text: 'Call Jun tomorrow', who: 'Jun Fairweather', priority: 'low', due: null },
  });
  // The next line is read afresh.
  await hand.type(entry(), 'Buy ties tomorrow');
  expect(screen.getByText('Will be added with: tomorrow')).toBeTruthy();
});

test('a line of blanks adds nothing', async () => {
  const server = answering({ 'GET /api/shelves': shelves });
  const { hand } = mount(<TodoEntry />);
  await hand.type(entry(), '   {Enter}');
  expect(screen.getByRole('button', { name: 'Add' }).getAttribute('aria-disabled')).toBe('true');
  expect(server.sent()).toEqual([]);
});

test('a line that could not be kept comes back, and the reason is told', async () => {
  answering({ 'GET /api/shelves': shelves, 'POST /api/todos': new Refusal(507, 'The server’s disk is full.') });
  const { hand } = mount(<TodoEntry />);
  await hand.type(entry(), 'Water the beds{Enter}');
  expect((await screen.findByRole('alert')).textContent).toContain('The server’s disk is full.');
  expect(entry().value).toBe('Water the beds');
});
