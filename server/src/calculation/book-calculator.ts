import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import type { SchoolPeriod } from '#server/calendar';
import { CopyReader } from '#server/platform';
import { enrolledInText } from '#server/period-view';
import type { BookPolicies, BookTexts, ComparedBooks, ComparedValue } from './calculation-worker.js';
import type { KeptGrade } from './books/kept-grades.js';

/** Reads many grade books at once and calculates them in a thread of its own. */
@Injectable()
export class BookCalculator implements OnApplicationShutdown {
  private readonly pool = new Piscina({
    filename: workerFile(),
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 30_000,
    execArgv: [],
  });

  constructor(private readonly copies: CopyReader) {}

  async onApplicationShutdown(): Promise<void> {
    await this.pool.destroy();
  }

  /** What every student of some sections comes to in a period. Not inside a transaction: it reads what is committed. */
  async calculate(period: SchoolPeriod, policies: BookPolicies): Promise<KeptGrade[]> {
    const texts = await this.read(period, policies);
    return (await this.pool.run({ ...texts, ...policies }, { name: 'calculateBooks' })) as KeptGrade[];
  }

  async compare(
    period: SchoolPeriod,
    before: BookPolicies,
    after: BookPolicies,
    values: readonly ComparedValue[],
  ): Promise<ComparedBooks> {
    const texts = await this.read(period, before);
    return (await this.pool.run({ ...texts, before, after, values }, { name: 'compareBooks' })) as ComparedBooks;
  }

  private async read(period: SchoolPeriod, { policyOf }: BookPolicies): Promise<BookTexts> {
    const queries = bookQueries(
      period,
      policyOf.map(([sectionId]) => sectionId),
    );
    return {
      enrollments: await this.copies.read(queries.enrollments),
      assignments: await this.copies.read(queries.assignments),
      scores: await this.copies.read(queries.scores),
    };
  }
}

/** Numbers alone go into the text, as COPY takes no parameters. */
function bookQueries(period: SchoolPeriod, sectionIds: readonly number[]) {
  const sections = `'{${sectionIds.join(',')}}'::int[]`;
  const enrolled = `e.section_id = ANY(${sections}) AND ${enrolledInText(period)}`;
  const assigned = `a.section_id = ANY(${sections}) AND a.period_id = ${period.id}`;
  return {
    enrollments: `SELECT e.id, e.section_id FROM enrollments e WHERE ${enrolled} ORDER BY e.id`,
    assignments: `SELECT a.id, a.section_id, a.category_id, (a.possible * 100)::int,
      a.is_extra::int + 2 * (NOT a.is_counted)::int FROM assignments a WHERE ${assigned} ORDER BY a.id`,
    scores: `SELECT s.enrollment_id, s.assignment_id, coalesce((s.points * 100)::int, -1),
      coalesce(array_position('{missing,late,incomplete,exempt,absent,collected}'::text[], s.flag), 0)
      FROM assignments a JOIN scores s ON s.assignment_id = a.id JOIN enrollments e ON e.id = s.enrollment_id
      WHERE ${assigned} AND ${enrolled} AND (a.given_to IS NULL OR a.given_to @> to_jsonb(s.enrollment_id))
      ORDER BY s.enrollment_id, a.due_on, a.id`,
  };
}

/** The built worker, also when the server itself runs from its sources, as in tests. */
function workerFile(): string {
  const beside = fileURLToPath(new URL('./calculation-worker.js', import.meta.url));
  return existsSync(beside)
    ? beside
    : fileURLToPath(new URL('../../dist/calculation/calculation-worker.js', import.meta.url));
}
