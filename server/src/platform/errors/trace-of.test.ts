import { DrizzleQueryError } from 'drizzle-orm';
import { describe, expect, it, onTestFinished, vi } from 'vitest';
import { ServerLogger } from './server-logger.js';
import { traceOf } from './trace-of.js';

/** As PostgreSQL and Drizzle throw them, with a student's data in each of their parts. */
function failedQuery(message: string, code: string): Error {
  const cause = Object.assign(new Error(message), {
    code,
    detail: 'Key (email)=(finn@school.example) already exists.',
  });
  const params = ['Finn\nThorn', 'finn@school.example', '31/12/2008'];
  return new DrizzleQueryError('insert into people (given_name, email) values ($1, $2)', params, cause);
}

describe('the server’s log tells of a failed query', () => {
  it.each([
    ['a value that cannot be read', 'invalid input syntax for type date: "31/12/2008"', '22007'],
    ['a value that goes over a line', 'invalid input syntax for type date: "31/12\n/2008"', '22007'],
    ['one that is there already', 'duplicate key value violates unique constraint "people_email"', '23505'],
  ])('without a student: %s', (_what, message, code) => {
    const trace = traceOf(failedQuery(message, code));
    expect(trace).not.toMatch(/Finn|Thorn|finn@|2008/);
    expect(trace).toContain('a query failed: insert into people (given_name, email) values ($1, $2)');
    expect(trace).toContain(`caused by Error: ${message.split(':')[0]}`);
    expect(trace).toMatch(/ {4}at failedQuery/);
  });

  it('in whatever way it is logged', () => {
    const printed: string[] = [];
    for (const stream of [process.stdout, process.stderr]) {
      const spy = vi.spyOn(stream, 'write').mockImplementation((text) => printed.push(String(text)) > 0);
      onTestFinished(() => spy.mockRestore());
    }
    const logger = new ServerLogger();
    logger.error('a file failed', failedQuery('x', '22007'));
    logger.error(failedQuery('x', '22007'));
    logger.warn('a row failed', failedQuery('x', '22007'), 'Files');
    expect(printed.join('')).not.toMatch(/Finn|Thorn|finn@|2008/);
    expect(printed.join('')).toMatch(/a file failed[^]*a row failed/);
  });
});
