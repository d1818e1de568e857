import { screen } from '@testing-library/react';
import { answering, mount } from '../../testing/mount';
import { useChanges } from '../../api/changes';
import { GuestSettings } from './guestSettings';

const ASK = 'POST /api/account/sign-up-code';
const SIGN_UP = 'POST /api/account';
const EMAIL = 'tamsin@harrowmere.example';
const PASSWORD = 'four words in a row';
const GUEST = { id: 'me', email: null, isShared: false };
const MAIL = { isPossible: true, isStandIn: false, address: null };
const SERVER = { 'GET /api/mail': MAIL, [SIGN_UP]: { ...GUEST, email: EMAIL } };
const Part = () => <GuestSettings isShared={false} changes={useChanges()} />;
const button = (name: string) => screen.getByRole('button', { name });

async function signUp() {
  const { hand } = mount(<Part />);
  await hand.type(await screen.findByLabelText('Email address'), EMAIL);
  await hand.type(screen.getByLabelText('Password, at least 10 characters'), PASSWORD);
  await hand.click(button('Sign up'));
  return hand;
}

test('where the server sends emails, the code from one finishes signing up', async () => {
  const server = answering({ ...SERVER, [ASK]: { isAsked: true } });
  const hand = await signUp();
  await hand.type(await screen.findByLabelText('Code from the email'), 'K7Q2-9MXD');
  await hand.click(button('Finish signing up'));
  expect(server.sent()).toMatchObject([
    { body: { email: EMAIL } },
    { body: { email: EMAIL, password: PASSWORD, code: 'K7Q2-9MXD' } },
  ]);
});

test('another address needs another code', async () => {
  answering({ ...SERVER, [ASK]: { isAsked: true } });
  const hand = await signUp();
  await hand.type(await screen.findByLabelText('Code from the email'), 'K7Q2-9MXD');
  await hand.type(screen.getByLabelText('Email address'), 'x');
  expect(button('Finish signing up').getAttribute('aria-disabled')).toBe('true');
  expect(screen.getByText(/changed the email address/)).toBeTruthy();
});

test('a server without emails asks for no code', async () => {
  const server = answering({ ...SERVER, [ASK]: { isAsked: false } });
  await signUp();
  expect(server.sent()).toMatchObject([{ body: { email: EMAIL } }, { body: { email: EMAIL, password: PASSWORD } }]);
  expect(screen.queryByLabelText('Code from the email')).toBeNull();
});
