/** The package yup, whose refusals are sentences that name the field. */
import { setLocale } from 'yup';

const KINDS: Record<string, string> = {
  ...{ string: 'text', number: 'a number', boolean: 'true or false', date: 'a date' },
  ...{ array: 'a list', object: 'an object' },
};

setLocale({
  mixed: {
    default: '“${path}” is not valid.',
    required: '“${path}” is missing.',
    defined: '“${path}” is missing.',
    notNull: '“${path}” must not be empty.',
    oneOf: '“${path}” must be one of these: ${values}.',
    notType: ({ path, type }) => `“${path}” must be ${KINDS[type] ?? type}.`,
  },
  string: {
    length: '“${path}” must have exactly ${length} characters.',
    min: '“${path}” needs at least ${min} characters.',
    max: '“${path}” may have at most ${max} characters.',
    matches: '“${path}” has the wrong format.',
    email: '“${path}” is not a valid email address.',
    url: '“${path}” is not a valid web address.',
    uuid: '“${path}” is not a valid id.',
  },
  number: {
    min: '“${path}” must be at least ${min}.',
    max: '“${path}” must be at most ${max}.',
    lessThan: '“${path}” must be less than ${less}.',
    moreThan: '“${path}” must be more than ${more}.',
    integer: '“${path}” must be a whole number.',
  },
  object: { noUnknown: 'Unknown field: ${unknown}.' },
  array: {
    min: '“${path}” needs at least ${min} entries.',
    max: '“${path}” may have at most ${max} entries.',
    length: '“${path}” must have exactly ${length} entries.',
  },
});

export * from 'yup';
