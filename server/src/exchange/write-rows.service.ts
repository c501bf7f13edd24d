import { Injectable } from '@nestjs/common';
import type { ExchangeRows, PlannedExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import { ExchangeIds } from './exchange-ids.js';
import { writeCategories } from './write-categories.js';
import { writeClasses } from './write-classes.js';
import { writeCourses } from './write-courses.js';
import { writeEnrollments } from './write-enrollments.js';
import { writeLineItems } from './write-line-items.js';
import { writePeople } from './write-people.js';
import { writeResults } from './write-results.js';
import { writeScales } from './write-scales.js';
import { writeSchools } from './write-schools.js';
import { writeSessions } from './write-sessions.js';
import type { Writing } from './writing.js';

/** Writes what a zip says, file after file, each after those that it refers to. */
@Injectable()
export class WriteRowsService {
  async write(
    queries: Queries,
    plan: readonly PlannedExchangeRow[],
    files: ExchangeRows,
    today: string,
  ): Promise<void> {
    const writing: Writing = {
      queries,
      files,
      today,
      ids: await ExchangeIds.read(queries),
      of: (file, ...outcomes) =>
        plan.filter((each) => each.file === file && outcomes.includes(each.outcome)).map(({ row }) => row),
    };
    await writeSchools(writing);
    await writeSessions(writing);
    await writePeople(writing);
    await writeCourses(writing);
    await writeClasses(writing);
    await writeEnrollments(writing);
    await writeCategories(writing);
    await writeLineItems(writing);
    await writeResults(writing);
    await writeScales(writing);
  }
}
