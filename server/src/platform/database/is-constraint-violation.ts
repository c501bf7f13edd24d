/** Whether the database refused a row as something that it needs is not there, or stands in its place already. */
export function isConstraintViolation(error: unknown): boolean {
  const { cause } = error as Error;
  // Class 23 of PostgreSQL's codes: https://www.postgresql.org/docs/15/errcodes-appendix.html
  return (cause as { code?: string } | undefined)?.code?.startsWith('23') ?? false;
}
