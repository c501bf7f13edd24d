import { randomUUID } from 'node:crypto';
import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import { problemOf, type Problem } from '#contract/problems';
import { isConflict } from '../database/is-constraint-violation.js';
import { Refusal } from './refusal.js';
import { traceOf } from './trace-of.js';

/** The one place where what was thrown becomes an RFC 9457 reply. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('Problem');

  catch(thrown: unknown, host: ArgumentsHost): void {
    const problem = this.problemOfThrown(thrown);
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) return;
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }

  private problemOfThrown(thrown: unknown): Problem {
    if (thrown instanceof Refusal) return problemOf(thrown.code, thrown.data, thrown.fields);
    if (thrown instanceof HttpException) return this.problemOfHttp(thrown);
    // Two at once, or a request that names what there is not: the database keeps what the domain did not look for.
    if (isConflict(thrown)) return problemOf('no-longer-fits', {}, []);
    const reference = randomUUID().slice(0, 8);
    this.logger.error(`${reference} ${traceOf(thrown)}`);
    return problemOf('unexpected', { reference }, []);
  }

  /** What Nest and its body parsers throw themselves. */
  private problemOfHttp(thrown: HttpException): Problem {
    const status = thrown.getStatus();
    if (status === 404)
      return {
        ...problemOf('not-found', { what: 'address', id: '' }, []),
        detail: 'There is nothing at this address.',
      };
    if (status === 413) return problemOf('body-too-large', {}, []);
    return { ...problemOf('body-unreadable', { reason: `${thrown.message}.` }, []), status };
  }
}
