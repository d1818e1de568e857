import { screen } from '@testing-library/react';
import { useChanges } from '../../api/changes';
import { answering, mount, Refusal } from '../../testing/mount';
import { ForgottenPassword } from './forgottenPassword';

const ASK = 'POST /api/session/forgotten';
const SET = 'POST /api/session/new-password';
const EMAIL = 'tamsin@harrowmere.example';
const Part = ({ email = EMAIL }: { email?: string }) => <ForgottenPassword email={email} changes={useChanges()} />;
const button = (name: string) => screen.getByRole('button', { name });

async function fillIn(hand: ReturnType<typeof mount>['hand']) {
  await hand.click(button('Forgot your password?'));
  await hand.type(await screen.findByLabelText('Code from the email'), 'K7Q2-9MXD');
  await hand.type(screen.getByLabelText('New password, at least 10 characters'), 'new words in a row');
  await hand.click(button('Save and sign in'));
}

test('a code is asked for, and with it a new password is set', async () => {
  const server = answering({ [ASK]: { isAsked: true }, [SET]: { id: 'me', email: EMAIL, isShared: false } });
  const { hand } = mount(<Part />);
  await fillIn(hand);
  expect(server.sent()).toMatchObject([
    { body: { email: EMAIL } },
    { body: { email: EMAIL, code: 'K7Q2-9MXD', newPassword: 'new words in a row' } },
  ]);
});

test('a wrong code is said, and what was typed stays', async () => {
  answering({ [ASK]: { isAsked: true }, [SET]: new Refusal(403, 'This code is wrong or no longer valid.') });
  const { hand } = mount(<Part />);
  await fillIn(hand);
  expect((await screen.findByRole('alert')).textContent).toContain('wrong or no longer valid');
  expect(screen.getByLabelText<HTMLInputElement>('Code from the email').value).toBe('K7Q2-9MXD');
});

test('without an address nothing can be asked', () => {
  answering({});
  mount(<Part email=" " />);
  expect(button('Forgot your password?').getAttribute('aria-disabled')).toBe('true');
  expect(screen.getByText(/enter your email address first/)).toBeTruthy();
});
