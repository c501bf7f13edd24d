/**
 * What the server's log says of something that was thrown: what went wrong, where, and what caused it, but none of the
 * values that a query was sent with or that the database could not read. They are students' data.
 */
export function traceOf(thrown: unknown): string {
  if (!(thrown instanceof Error)) return String(thrown);
  const frames = (thrown.stack ?? '').split('\n').filter((line) => line.startsWith('    at '));
  const cause = thrown.cause === undefined ? '' : `\ncaused by ${traceOf(thrown.cause)}`;
  return [`${thrown.name}: ${plainMessage(thrown)}`, ...frames].join('\n') + cause;
}

function plainMessage(thrown: Error): string {
  const { query, code } = thrown as { query?: unknown; code?: unknown };
  if (typeof query === 'string') return `a query failed: ${query.slice(0, 300)}`; // its own message goes on with the values
  const isAboutValue = typeof code === 'string' && /^22\w{3}$/.test(code); // data exceptions, PostgreSQL appendix A
  return isAboutValue ? thrown.message.replace(/:? ?".*"/s, '') : thrown.message;
}
