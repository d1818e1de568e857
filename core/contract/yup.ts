/** The package yup, whose refusals are sentences that name the field. */
import { setLocale } from 'yup';

const KINDS: Record<string, string> = {
  ...{ string: 'text', number: 'a number', boolean: 'true or false', date: 'a date' },
  ...{ array: 'a list', object: 'an object' },
};

setLocale({
  mixed: {
    default: '“${path}” cannot be like this.',
    required: '“${path}” is missing.',
    defined: '“${path}” is missing.',
    notNull: '“${path}” has to be given.',
    oneOf: '“${path}” has to be one of these: ${values}.',
    notType: ({ path, type }) => `“${path}” must be ${KINDS[type] ?? type}.`,
  },
  string: {
    length: '“${path}” has to have ${length} characters.',
    min: '“${path}” has to have at least ${min} characters.',
    max: '“${path}” may have at most ${max} characters.',
    matches: '“${path}” is not written as it has to be.',
    email: '“${path}” is no e-mail address.',
    url: '“${path}” is no address.',
    uuid: '“${path}” is no id.',
  },
  number: {
    min: '“${path}” has to be at least ${min}.',
    max: '“${path}” may be at most ${max}.',
    lessThan: '“${path}” has to be less than ${less}.',
    moreThan: '“${path}” has to be more than ${more}.',
    integer: '“${path}” has to be a whole number.',
  },
  object: { noUnknown: 'A field here is not known: ${unknown}.' },
  array: {
    min: '“${path}” has to hold at least ${min}.',
    max: '“${path}” may hold at most ${max}.',
    length: '“${path}” has to hold ${length}.',
  },
});

export * from 'yup';
