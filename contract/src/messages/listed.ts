const conjunction = new Intl.ListFormat('en-GB');

/**
 * Things one after another, as a sentence names them.
 *
 * @example listed(['Shore Life', 'Knots', 'Exam']) // 'Shore Life, Knots and Exam'
 */
export function listed(words: readonly string[]): string {
  return conjunction.format(words);
}
