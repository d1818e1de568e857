/** Problem details of RFC 9457 as Immeld answers them. `safe` says what has not been lost; `code` is for programs. */
export type ProblemDetails = {
  type: string;
  title: string;
  status: number;
  detail: string;
  instance?: string;
  code: ProblemCode;
  safe: string;
};

export const PROBLEMS = {
  'invalid-request': { status: 400, title: 'Request not understood' },
  'signed-out': { status: 401, title: 'Not signed in' },
  'not-allowed': { status: 403, title: 'Not allowed' },
  'other-origin': { status: 403, title: 'Request from another website' },
  'not-found': { status: 404, title: 'Not found' },
  'not-possible-now': { status: 409, title: 'Not possible right now' },
  'sound-missing': { status: 410, title: 'Audio missing' },
  'too-many': { status: 429, title: 'Too many attempts' },
  'too-large': { status: 413, title: 'Too large' },
  'server-error': { status: 500, title: 'Something went wrong' },
} as const satisfies Record<string, { status: number; title: string }>;

export type ProblemCode = keyof typeof PROBLEMS;

/** An error that becomes a problem answer: a sentence for the person and what is safe. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    detail: string,
    readonly safe = 'Nothing was changed.',
  ) {
    super(detail);
    this.name = 'Problem';
  }

  toDetails(instance?: string): ProblemDetails {
    const { status, title } = PROBLEMS[this.code];
    return {
      type: `urn:immeld:problem:${this.code}`,
      title,
      status,
      detail: this.message,
      code: this.code,
      safe: this.safe,
      ...(instance ? { instance } : {}),
    };
  }
}
