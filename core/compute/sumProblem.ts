/** Why a line of a note cannot be worked out, as a sentence for its writer. */
export class SumProblem extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'SumProblem';
  }
}
