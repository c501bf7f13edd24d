/** Why a platform could not be read, in words for the registrar: what happened, where, and what would help. */
export class PlatformProblem extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'PlatformProblem';
  }
}
