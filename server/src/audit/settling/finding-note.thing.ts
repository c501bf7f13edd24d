import { ruleById } from '#core/audit';
import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { AuditRunsRepository, subjectOf } from '../runs/audit-runs.repository.js';
import { FindingNotesRepository, type FindingNoteValue } from './finding-notes.repository.js';
import { periodFindingOf } from './period-finding.js';

/** What is being done about findings, by the finding and its period. */
@ThingOf({
  kind: 'finding-note',
  called: 'the note',
  change: 'audit',
  see: 'read-findings',
  at: (id) => ({ kind: 'period', id: periodFindingOf(id).periodId }),
})
export class FindingNoteThing implements Thing<FindingNoteValue> {
  constructor(
    private readonly notes: FindingNotesRepository,
    private readonly runs: AuditRunsRepository,
  ) {}

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return namesOfFindings(this.runs, queries, ids);
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, FindingNoteValue>> {
    return this.notes.values(queries, ids);
  }

  async check(): Promise<void> {}

  write(queries: Queries, values: ReadonlyMap<string, FindingNoteValue | null>): Promise<void> {
    return this.notes.write(queries, values);
  }
}

/** What people call the findings that waivers and notes are about. */
export async function namesOfFindings(
  runs: AuditRunsRepository,
  queries: Queries,
  ids: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const names = await runs.namesOf(queries, ids.map(periodFindingOf));
  return new Map(
    names.map((name, at) => {
      const { ruleId } = periodFindingOf(ids[at]!);
      return [ids[at]!, `${ruleById.get(ruleId)?.summary ?? 'finding'}, ${subjectOf(name)}`];
    }),
  );
}
