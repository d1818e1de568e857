import { screen, waitFor } from '@testing-library/react';
import { useChanges } from '../../api/changes';
import { answering, mount, Refusal } from '../../testing/mount';
import { ChangePassword } from './changePassword';

const ADDRESS = 'POST /api/account/password';
const Part = () => <ChangePassword changes={useChanges()} />;
const button = (name: string) => screen.getByRole('button', { name });

async function fillIn(hand: ReturnType<typeof mount>['hand']) {
  await hand.click(button('Change password'));
  await hand.type(screen.getByLabelText('Current password'), 'old words');
  await hand.type(screen.getByLabelText('New password, at least 10 characters'), 'new words in a row');
  await hand.click(button('Save'));
}

test('the password is changed, and that is said', async () => {
  const server = answering({ [ADDRESS]: { id: 'me', email: 'a@b.example', isShared: false } });
  const { hand } = mount(<Part />);
  await fillIn(hand);
  await waitFor(() => expect(screen.getByText(/^Password changed/)).toBeTruthy());
  expect(server.sent()).toMatchObject([{ body: { password: 'old words', newPassword: 'new words in a row' } }]);
});

test('a refusal is shown, and what was typed stays', async () => {
  answering({ [ADDRESS]: new Refusal(403, 'Wrong email or password.') });
  const { hand } = mount(<Part />);
  await fillIn(hand);
  expect((await screen.findByRole('alert')).textContent).toContain('Wrong email or password');
  expect(screen.getByLabelText<HTMLInputElement>('Current password').value).toBe('old words');
});
