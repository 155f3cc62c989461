/** Something wrong with what was given, in plain words: what happened, and what to do about it. */
export class Problem extends Error {
  readonly code: string;
  readonly hint: string;
  readonly field?: string;

  constructor(code: string, message: string, hint: string, field?: string) {
    super(message);
    this.name = 'Problem';
    this.code = code;
    this.hint = hint;
    this.field = field;
  }
}
