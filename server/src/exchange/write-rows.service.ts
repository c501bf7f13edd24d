import { Injectable } from '@nestjs/common';
import {
  asHeld,
  fieldsToKeep,
  keyOf,
  schoolsUsing,
  termsOf,
  together,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeVersion,
  type IsHeld,
  type PlannedExchangeRow,
} from '#core/exchange';
import type { Queries } from '#server/platform';
import { ExchangeIds } from './exchange-ids.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import { RosterFieldsRepository, type FieldsOfRow } from './roster-fields.repository.js';
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

export interface PlanToWrite {
  readonly version: ExchangeVersion;
  readonly plan: readonly PlannedExchangeRow[];
  /** What is here before. */
  readonly here: ExchangeRows;
  /** The line items whose scores `here` has. */
  readonly lineItemIds: readonly string[];
}

/** Writes what a zip says, file after file, each after those that it refers to. */
@Injectable()
export class WriteRowsService {
  constructor(
    private readonly held: HeldRowsRepository,
    private readonly rosterFields: RosterFieldsRepository,
  ) {}

  async write(queries: Queries, { version, plan, here, lineItemIds }: PlanToWrite, today: string): Promise<void> {
    const all = together(here, rowsThatCame(plan));
    const termOf = termsOf(all.academicSessions ?? []);
    const writing: Writing = {
      queries,
      today,
      all,
      using: schoolsUsing(all),
      ids: await ExchangeIds.read(queries),
      of: (file, ...outcomes) =>
        plan
          .filter((each) => each.file === file && outcomes.includes(each.outcome))
          .map(({ row }) => asHeld(file, row, termOf)),
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
    await this.keepRest(queries, plan, await this.held.made(queries, version, lineItemIds));
  }

  /** What Wombat does not make by itself of what it holds now is kept beside it. */
  private async keepRest(queries: Queries, plan: readonly PlannedExchangeRow[], made: ExchangeRows): Promise<void> {
    const byKey = new Map<ExchangeFile, ReadonlyMap<string, ExchangeRow>>();
    const ids = new Map<ExchangeFile, ReadonlySet<string>>();
    for (const [file, rows] of Object.entries(made) as [ExchangeFile, readonly ExchangeRow[]][]) {
      byKey.set(file, new Map(rows.map((row) => [keyOf(file, row), row])));
      ids.set(file, new Set(rows.map(({ sourcedId }) => sourcedId!)));
    }
    const isHeld: IsHeld = (file, id) => ids.get(file)?.has(id) ?? false;
    const kept = plan.flatMap(({ file, outcome, row }): FieldsOfRow[] => {
      const key = keyOf(file, row);
      const sourcedId = row['sourcedId']!;
      if (outcome === 'delete' && file === 'roles') return [{ file, key, sourcedId, fields: null }];
      if (outcome !== 'new' && outcome !== 'changed') return [];
      const own = byKey.get(file)?.get(key) ?? {};
      return [{ file, key, sourcedId, fields: fieldsToKeep(file, row, own, isHeld) ?? null }];
    });
    await this.rosterFields.keep(queries, kept);
  }
}

/** Of a plan's rows those that are here or will be; of what is refused or skipped nothing is. */
function rowsThatCame(plan: readonly PlannedExchangeRow[]): ExchangeRows {
  const rows: Partial<Record<ExchangeFile, ExchangeRow[]>> = {};
  for (const { file, outcome, row } of plan)
    if (outcome === 'new' || outcome === 'changed') (rows[file] ??= []).push(row);
  return rows;
}
