import * as yup from './yup';

export const MIN_PASSWORD_LENGTH = 10;

const email = () =>
  yup
    .string()
    .trim()
    .lowercase()
    .max(254, 'The email address may have at most 254 characters.')
    .matches(/^[^\s@]+@[^\s@.]+(?:\.[^\s@.]+)+$/, 'This is not a valid email address.')
    .required('Enter an email address.');

export const accountSchema = yup.object({
  id: yup.string().uuid().required(),
  /** Null for a guest: the data belongs to the cookie of this device. */
  email: yup.string().defined().nullable(),
  /** The account of the demo, which everybody shares who comes without one. */
  isShared: yup.boolean().required(),
});
export type Account = yup.InferType<typeof accountSchema>;

const newPassword = () =>
  yup
    .string()
    .min(MIN_PASSWORD_LENGTH, 'The password needs at least 10 characters. A few unrelated words work well.')
    .max(200, 'A password may have at most 200 characters.')
    .required('Enter a password.');

const code = () => yup.string().trim().max(20, 'The code has eight characters.');

export const newAccountSchema = yup
  .object({
    email: email(),
    password: newPassword(),
    /** From the email. Servers that send no emails do not ask for it. */
    code: code().nullable().default(null),
  })
  .noUnknown();

export const passwordChangeSchema = yup
  .object({ password: yup.string().max(200).required('Type your current password.'), newPassword: newPassword() })
  .noUnknown();

/** What is typed to sign in is compared as it is: rules for new passwords do not lock old ones out. */
export const signInSchema = yup
  .object({ email: email(), password: yup.string().max(200).required('Enter your password.') })
  .noUnknown();

/** Where a code is sent to: to sign up, or to set a new password. */
export const codeRequestSchema = yup.object({ email: email() }).noUnknown();
export const newPasswordSchema = yup
  .object({
    email: email(),
    code: code().required('Enter the code from the email.'),
    newPassword: newPassword(),
  })
  .noUnknown();

/** What a guest types who wants everything deleted; an account has its password for it. */
export const DELETE_WORD = 'DELETE';

export const accountRemovalSchema = yup
  .object({
    password: yup.string().max(200).nullable().default(null),
    word: yup.string().max(20).nullable().default(null),
  })
  .noUnknown();

/** What was removed for good, and what of it was looked for afterwards and not found any more. */
export const removedSchema = yup.object({
  recordings: yup.number().integer().required(),
  notes: yup.number().integer().required(),
  files: yup.number().integer().required(),
  /** Files that could not be removed, by name; empty when nothing is left. */
  left: yup.array().of(yup.string().required()).required(),
});
export type Removed = yup.InferType<typeof removedSchema>;

export const sessionSchema = yup.object({
  id: yup.string().uuid().required(),
  device: yup.string().required(),
  lastSeenAt: yup.string().required(),
  isThisOne: yup.boolean().required(),
});
export type Session = yup.InferType<typeof sessionSchema>;
