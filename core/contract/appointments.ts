import * as yup from './yup';

const local = () =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}$/)
    .required();

/** One occurrence of an appointment; times are local to the person: `2026-03-09T14:00:00`. */
export const appointmentSchema = yup.object({
  /** Calendar, event and occurrence in one: the same as long as the calendar keeps it. */
  id: yup.string().required(),
  calendarId: yup.string().uuid().required(),
  title: yup.string().defined(),
  start: local(),
  end: local(),
  isWholeDay: yup.boolean().required(),
  place: yup.string().defined().nullable(),
  people: yup.array().of(yup.string().required()).required(),
});
export type Appointment = yup.InferType<typeof appointmentSchema>;

export const calendarSchema = yup.object({
  id: yup.string().uuid().required(),
  name: yup.string().required(),
  /** Null for a file that was brought in once. */
  address: yup.string().defined().nullable(),
  fetchedAt: yup.string().defined().nullable(),
  problem: yup.string().defined().nullable(),
  isStandIn: yup.boolean().required(),
});
export type Calendar = yup.InferType<typeof calendarSchema>;

const TOO_LARGE = 'A calendar may have at most 5 million characters.';

/** Either the content of an iCalendar file, or the address of a feed. */
export const newCalendarSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Enter a name for the calendar.').max(80).required('A calendar needs a name.'),
    address: yup
      .string()
      .trim()
      .max(2000)
      .matches(/^(https?|webcal):\/\/\S+$/i, 'The calendar address must begin with https:// or webcal://.'),
    content: yup.string().max(5_000_000, TOO_LARGE),
  })
  .noUnknown()
  .test(
    'one-of-both',
    'Enter either the address of a calendar or a file.',
    (value) => Boolean(value.address) !== Boolean(value.content),
  );
export type NewCalendar = yup.InferType<typeof newCalendarSchema>;
