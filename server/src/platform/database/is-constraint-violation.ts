/** Whether the database refused a row as something that it needs is not there, or stands in its place already. */
export function isConstraintViolation(error: unknown): boolean {
  // Class 23 of PostgreSQL's codes: https://www.postgresql.org/docs/15/errcodes-appendix.html
  return codeOf(error)?.startsWith('23') ?? false;
}

/** Whether a row refers to what is not there, or is there already: what two at once may come to, however well each looked before. */
export function isConflict(error: unknown): boolean {
  return ['23503', '23505'].includes(codeOf(error) ?? '');
}

function codeOf(error: unknown): string | undefined {
  const { cause } = error as Error;
  return (cause as { code?: string } | undefined)?.code;
}
