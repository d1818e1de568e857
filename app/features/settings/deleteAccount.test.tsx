import { screen, waitFor } from '@testing-library/react';
import { answering, mount, Refusal } from '../../testing/mount';
import { DeleteAccount } from './deleteAccount';

const mockForget = jest.fn(async () => undefined);
jest.mock('../../offline/deviceContext', () => ({ useDevice: () => ({ store: { forgetAll: mockForget } }) }));

const id = '00000000-0000-4000-8000-000000000001';
const guest = { id, email: null, isShared: false };
const removed = { recordings: 2, notes: 1, files: 4, left: [] };
const REMOVE = 'POST /api/account/removal';
const forGood = () => screen.getByRole('button', { name: 'Delete everything permanently' });
beforeEach(() => mockForget.mockClear());

test('one press only opens; leaving it asks nothing of the server', async () => {
  const server = answering({});
  const { hand } = mount(<DeleteAccount account={guest} onDeleted={() => undefined} />);
  await hand.click(screen.getByRole('button', { name: 'Delete everything' }));
  expect(forGood().getAttribute('aria-disabled')).toBe('true');
  await hand.click(screen.getByRole('button', { name: 'Cancel' }));
  expect(screen.queryByText('Delete everything permanently?')).toBeNull();
  expect(server.sent()).toEqual([]);
});

test('a guest types the word; then the device forgets too, and what is gone is told', async () => {
  const server = answering({ [REMOVE]: removed });
  const onDeleted = jest.fn();
  const { hand } = mount(<DeleteAccount account={guest} onDeleted={onDeleted} />);
  await hand.click(screen.getByRole('button', { name: 'Delete everything' }));
  await hand.type(screen.getByLabelText('Type DELETE to confirm'), ' DELETE ');
  await hand.click(forGood());
  await waitFor(() => expect(onDeleted).toHaveBeenCalledWith(removed));
  expect(server.sent()[0]!.body).toEqual({ word: 'DELETE' });
  expect(mockForget).toHaveBeenCalledTimes(1);
});

test('somebody who signed up gives the password; a wrong one deletes nothing, here or there', async () => {
  const server = answering({ [REMOVE]: new Refusal(403, 'This is not the password.') });
  const onDeleted = jest.fn();
  const { hand } = mount(<DeleteAccount account={{ ...guest, email: 'ida@example.org' }} onDeleted={onDeleted} />);
  await hand.click(screen.getByRole('button', { name: 'Delete everything' }));
  const password = screen.getByLabelText('Your password');
  expect(password.getAttribute('type')).toBe('password');
  await hand.type(password, 'wrong one ');
  await hand.click(forGood());
  expect((await screen.findByRole('alert')).textContent).toContain('This is not the password.');
  expect(server.sent()[0]!.body).toEqual({ password: 'wrong one ' });
  expect(mockForget).not.toHaveBeenCalled();
  expect(onDeleted).not.toHaveBeenCalled();
});
