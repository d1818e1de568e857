import { DELETE_WORD } from '@immeld/core/contract/account';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { type Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { Op } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { type RemovalParts, removeAccount } from '../accounts/removeAccount';
import { moveToAccount } from '../accounts/moveToAccount';
import { MailedCodes } from '../accounts/mailedCodes';
import {
  accountByPassword,
  beginSession,
  forgetCookie,
  hashPassword,
  newGuest,
  findSession,
} from '../accounts/sessions';
import { AccountRow, SessionRow } from '../models/account';
import { log } from '../log';
import type { Mailer } from '../mail/mailer';
import { quickTasks } from '../tasks/taskPool';
import { serve } from './serve';

const MINUTE_MS = 60_000;
/** Guessing passwords and filling the house with guests is slow. */
const limited = (limit: number) =>
  rateLimit({
    windowMs: MINUTE_MS,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new Problem('too-many', 'Too many attempts. Wait a minute, then try again.');
    },
  });

async function answerFor(id: string, isDemo: boolean) {
  const account = await AccountRow.findByPk(id, { rejectOnEmpty: true });
  return { id, email: account.email, isShared: isDemo && id === FIRST_ACCOUNT };
}

/** Throws Problem where a password is guessed within ten thousand million tries (by zxcvbn, its score 3). */
async function refuseWeak(password: string, email: string): Promise<void> {
  if (!(await quickTasks.run({ kind: 'password', password, email }))) {
    throw new Problem('invalid-request', 'This password is too easy to guess. Use several unrelated words.');
  }
}

/** Throws Problem where a guest would lose the only way to what was recorded. */
async function refuseLosing(session: SessionRow): Promise<void> {
  const account = await AccountRow.findByPk(session.owner);
  if (!account || account.email) return;
  throw new Problem(
    'not-possible-now',
    'You are using Immeld as a guest. If you sign out, nobody can reach these recordings again. Add an email address and a password first.',
  );
}

/** What was recorded on this device as a guest goes along into an account; another person's account stays as it is. */
async function takeGuestAlong(request: Request, into: string): Promise<void> {
  const session = await findSession(request);
  if (!session || session.owner === into) return;
  const guest = await AccountRow.findByPk(session.owner);
  if (guest && !guest.email) await moveToAccount(guest.id, into);
}

export function accountRoutes(isDemo: boolean, parts: RemovalParts, mailer: Mailer): Router {
  const router = Router();
  const resets = new MailedCodes();
  const signUps = new MailedCodes();
  const canSendCodes = () => mailer.isPossible && !mailer.isStandIn;
  const isShared = (id: string | null) => isDemo && id === FIRST_ACCOUNT;

  serve(router, ENDPOINTS.getAccount, () => answerFor(accountId()!, isDemo));

  router.use(ENDPOINTS.beGuest.path, limited(30));
  serve(router, ENDPOINTS.beGuest, async ({ request, response }) => {
    const known = await findSession(request);
    if (known) return answerFor(known.owner, isDemo);
    if (isDemo) return answerFor(FIRST_ACCOUNT, isDemo);
    const id = await newGuest();
    await beginSession(request, response, id);
    return answerFor(id, isDemo);
  });

  router.use(ENDPOINTS.askToSignUp.path, limited(5));
  serve(router, ENDPOINTS.askToSignUp, async ({ body: { email } }) => {
    if (!canSendCodes()) return { isAsked: false };
    const isKnown = (await AccountRow.count({ where: { email } })) > 0;
    const code = signUps.begin(email);
    // Nobody waits for the email: how long it takes would tell who has an account.
    if (code) {
      void (
        isKnown
          ? mailer.sendWords(email, 'You already have an account', KNOWN_MAIL)
          : mailer.sendWords(email, 'Your code to sign up', signUpMail(code))
      ).catch((error: unknown) => log.error(error, 'A code to sign up could not be sent.'));
    }
    return { isAsked: true };
  });

  router.use(ENDPOINTS.signUp.path, (request, response, next) =>
    request.method === 'POST' ? limitSignUp(request, response, next) : next(),
  );
  serve(router, ENDPOINTS.signUp, async ({ body, request, response }) => {
    await refuseWeak(body.password, body.email);
    if (canSendCodes() && !signUps.take(body.email, body.code ?? '')) {
      throw new Problem('not-allowed', 'This code is wrong or no longer valid. Ask for a new one.');
    }
    // It takes equally long when the address has an account.
    const passwordHash = await hashPassword(body.password);
    if (await AccountRow.count({ where: { email: body.email } })) {
      throw new Problem(
        'not-possible-now',
        'You cannot sign up with this e-mail address. If it is yours, sign in instead.',
      );
    }
    const own = accountId();
    const guest = own && !isShared(own) ? await AccountRow.findByPk(own) : null;
    if (guest?.email) throw new Problem('not-possible-now', 'This device is already signed in.');
    const account = guest ?? AccountRow.build({ email: null, passwordHash: null });
    await account.set({ email: body.email, passwordHash }).save();
    await SessionRow.destroy({ where: { owner: account.id } });
    await beginSession(request, response, account.id);
    return answerFor(account.id, isDemo);
  });

  router.use(ENDPOINTS.signIn.path, (request, response, next) =>
    request.method === 'POST' && request.path === '/' ? limitSignIn(request, response, next) : next(),
  );
  serve(router, ENDPOINTS.signIn, async ({ body, request, response }) => {
    const account = await accountByPassword(body.email, body.password);
    await takeGuestAlong(request, account.id);
    await beginSession(request, response, account.id);
    return answerFor(account.id, isDemo);
  });

  serve(router, ENDPOINTS.signOut, async ({ request, response }) => {
    const session = await findSession(request);
    if (session) await refuseLosing(session);
    await session?.destroy();
    forgetCookie(request, response);
    return { isSignedOut: true };
  });

  router.use(ENDPOINTS.removeAccount.path, limited(10));
  serve(router, ENDPOINTS.removeAccount, async ({ body, request, response }) => {
    const id = accountId()!;
    if (isShared(id)) throw new Problem('not-allowed', 'Everyone shares this demo account, so it cannot be deleted.');
    const account = await AccountRow.findByPk(id, { rejectOnEmpty: true });
    if (account.email) await accountByPassword(account.email, body.password ?? '');
    else if (body.word !== DELETE_WORD) {
      throw new Problem('invalid-request', `Type ${DELETE_WORD} to delete everything you recorded here.`);
    }
    const removed = await removeAccount(id, parts);
    forgetCookie(request, response);
    return removed;
  });

  serve(router, ENDPOINTS.listSessions, async ({ response }) => {
    const rows = await SessionRow.findAll({ where: { owner: accountId()! }, order: [['lastSeenAt', 'DESC']] });
    return {
      items: rows.map(({ id, device, lastSeenAt }) => ({
        ...{ id, device, lastSeenAt: lastSeenAt.toISOString() },
        isThisOne: id === response.locals['sessionId'],
      })),
    };
  });

  serve(router, ENDPOINTS.endSession, async ({ params }) => {
    const row = await SessionRow.findOne({ where: { id: params.id, owner: accountId()! } });
    if (!row) throw new Problem('not-found', 'This device is no longer signed in.');
    await refuseLosing(row);
    await row.destroy();
    return { isSignedOut: true };
  });

  serve(router, ENDPOINTS.endOtherSessions, async ({ response }) => {
    const others = { owner: accountId()!, id: { [Op.ne]: String(response.locals['sessionId'] ?? '') } };
    return { signedOut: await SessionRow.destroy({ where: others }) };
  });

  router.use(ENDPOINTS.changePassword.path, limited(10));
  serve(router, ENDPOINTS.changePassword, async ({ body, request, response }) => {
    const account = await AccountRow.findByPk(accountId()!, { rejectOnEmpty: true });
    if (!account.email) throw new Problem('not-possible-now', 'A guest has no password. Sign up first.');
    await accountByPassword(account.email, body.password);
    await refuseWeak(body.newPassword, account.email);
    await account.update({ passwordHash: await hashPassword(body.newPassword) });
    // Whoever knew the old one is out.
    await SessionRow.destroy({ where: { owner: account.id } });
    await beginSession(request, response, account.id);
    return answerFor(account.id, isDemo);
  });

  router.use(ENDPOINTS.forgotPassword.path, limited(5));
  serve(router, ENDPOINTS.forgotPassword, async ({ body }) => {
    if (!canSendCodes()) {
      throw new Problem(
        'not-possible-now',
        'This server sends no emails, so it cannot help with a forgotten password. Ask whoever runs it.',
      );
    }
    const account = await AccountRow.findOne({ where: { email: body.email } });
    const code = account && resets.begin(account.id);
    // Nobody waits for the mail: how long it takes would tell who has an account.
    if (code)
      void mailer
        .sendWords(body.email, 'Your code for a new password', codeMail(code))
        .catch((error: unknown) => log.error(error, 'A code for a new password could not be sent.'));
    return { isAsked: true };
  });

  router.use(ENDPOINTS.setForgottenPassword.path, limited(10));
  serve(router, ENDPOINTS.setForgottenPassword, async ({ body, request, response }) => {
    await refuseWeak(body.newPassword, body.email);
    const account = await AccountRow.findOne({ where: { email: body.email } });
    if (!account || !resets.take(account.id, body.code)) {
      throw new Problem('not-allowed', 'This code is wrong or no longer valid. Ask for a new one.');
    }
    await takeGuestAlong(request, account.id);
    await account.update({ passwordHash: await hashPassword(body.newPassword) });
    // Whoever knew the old one is out.
    await SessionRow.destroy({ where: { owner: account.id } });
    await beginSession(request, response, account.id);
    return answerFor(account.id, isDemo);
  });

  return router;
}

const codeMail = (code: string): string =>
  `Hello,

somebody, most likely you, asked for a new password for your account at Immeld. Enter this code there:

${code}

It works once, within the next 20 minutes.

If it was not you, you need not do anything: your password stays as it is.
`;

const signUpMail = (code: string): string =>
  `Hello,

someone, most likely you, wants to use Immeld with this email address. Enter this code there:

${code}

It works once, within the next 20 minutes.

If it was not you, you need not do anything: no account was created.
`;

const KNOWN_MAIL = `Hello,

someone, most likely you, tried to sign up at Immeld with this email address. It already has an account. Sign in instead.
If you forgot your password, you can set a new one there.

If it was not you, you need not do anything: nothing was changed.
`;

const limitSignUp = limited(10);
const limitSignIn = limited(10);
