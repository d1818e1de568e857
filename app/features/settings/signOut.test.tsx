import { screen, waitFor } from '@testing-library/react';
import { keepDraft } from '../../offline/noteDrafts';
import { changeTodo } from '../../offline/todosToSend';
import { answering, mount, Refusal } from '../../testing/mount';
import { SignOut } from './signOut';

let mockStates: string[];
const mockWake = jest.fn(async () => undefined);
jest.mock('../../offline/deviceContext', () => ({
  useDevice: () => ({
    store: { list: async () => mockStates.map((state) => ({ state })) },
    outbox: { wake: mockWake },
  }),
}));

const CHANGE = 'PATCH /api/todos/milk';
const button = (name: string) => screen.getByRole('button', { name });
const locks = { request: (_: string, __: object, work: (lock: object) => unknown) => work({}) };
beforeEach(() => {
  localStorage.clear();
  mockStates = [];
  mockWake.mockClear();
  Object.assign(navigator, { locks });
});

/** A to-do that was ticked while the server did not answer. */
async function tick(): Promise<void> {
  Object.assign(globalThis, { fetch: () => Promise.reject(new Error('no network')) });
  await changeTodo('milk', { isDone: true });
}

test('with nothing left to send it signs out at once', async () => {
  answering({});
  const onSignOut = jest.fn();
  const { hand } = mount(<SignOut onSignOut={onSignOut} />);
  await hand.click(button('Sign out'));
  await waitFor(() => expect(onSignOut).toHaveBeenCalledTimes(1));
  expect(mockWake).toHaveBeenCalledTimes(1);
});

test('what is only here is sent first, to the account that it belongs to', async () => {
  await tick();
  const server = answering({ [CHANGE]: {} });
  const onSignOut = jest.fn(() => expect(server.sent()).toHaveLength(1));
  const { hand } = mount(<SignOut onSignOut={onSignOut} />);
  await hand.click(button('Sign out'));
  await waitFor(() => expect(onSignOut).toHaveBeenCalledTimes(1));
});

test('what cannot be sent is told, and one can stay, try again, or leave without it', async () => {
  await tick();
  keepDraft('note', { title: 'Oaks' } as never);
  mockStates = ['waiting', 'sent'];
  answering({ [CHANGE]: new Refusal(503, 'Busy.') });
  const onSignOut = jest.fn();
  const { hand } = mount(<SignOut onSignOut={onSignOut} />);
  await hand.click(button('Sign out'));
  expect((await screen.findByRole('alert')).textContent).toContain('3 items from this device have not');
  await hand.click(button('Stay signed in'));
  expect(screen.queryByRole('alert')).toBeNull();
  await hand.click(button('Sign out'));
  await hand.click(await screen.findByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('alert')).toBeTruthy();
  expect(onSignOut).not.toHaveBeenCalled();
  await hand.click(button('Sign out anyway'));
  expect(onSignOut).toHaveBeenCalledTimes(1);
});
