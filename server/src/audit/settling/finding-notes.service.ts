import { Injectable } from '@nestjs/common';
import { mayAt, ofSchool } from '#core/access';
import type { AssigneeReply, FindingReply, NoteFindingsRequest } from '#contract/audit';
import type { Finding } from '#core/audit';
import { counted } from '#contract/messages';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository } from '../runs/audit-runs.repository.js';
import { FindingNotesRepository } from './finding-notes.repository.js';
import { periodFindingId } from './period-finding.js';

type NotedReply = Pick<FindingReply, 'note' | 'noteRevision'>;

/** Whose a finding is, and what was said of it. */
@Injectable()
export class FindingNotesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly notes: FindingNotesRepository,
    private readonly runs: AuditRunsRepository,
    private readonly changes: Changes,
    private readonly clock: Clock,
  ) {}

  /** Says it of findings of the last audit, of all of them or of none. @throws Refusal not-found, fields-wrong, changed-meanwhile */
  async note(actor: Actor, { periodId, findings, comment, assignedTo }: NoteFindingsRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const found = await this.runs.inLastOrThrow(queries, periodId, findings);
      const assignee = (await this.staffOf(queries, periodId)).find(({ id }) => id === assignedTo);
      if (assignedTo !== null && !assignee)
        throw new Refusal('fields-wrong', {}, [
          { field: 'assignedTo', detail: 'somebody who may settle findings here' },
        ]);
      const says = comment.trim();
      const value = { comment: says, assignedTo, notedBy: actor.personId, notedAt: this.clock.now().toISOString() };
      const what = counted(found.length, 'finding');
      await this.changes.make(queries, actor, {
        action: assignee ? `assign ${what} to ${assignee.name}` : `comment on ${what}`,
        ...(says !== '' && { why: says }),
        edits: found.map((finding, at) => ({
          kind: 'finding-note',
          id: periodFindingId({ ...finding, periodId }),
          expected: findings[at]!.revision,
          after: says === '' && assignedTo === null ? null : value,
        })),
      });
    });
  }

  /** Who may be given a finding of a period, by name. */
  assignees(periodId: number): Promise<AssigneeReply[]> {
    return this.transactions.snapshot((queries) => this.staffOf(queries, periodId));
  }

  private async staffOf(queries: Queries, periodId: number): Promise<AssigneeReply[]> {
    const { schoolId } = await this.periods.byIdOrThrow(queries, periodId);
    const staff = await this.notes.staff(queries);
    return staff
      .filter(({ id, grants }) => mayAt({ personId: id, grants }, 'audit', ofSchool(schoolId)))
      .map(({ id, name }) => ({ id, name }));
  }

  /** What was said of each finding of a period; null of one of which nothing was. */
  async ofPeriod(queries: Queries, periodId: number): Promise<(finding: Finding) => NotedReply> {
    const notes = await this.notes.ofPeriod(queries, periodId);
    return (finding) => {
      const note = notes.get(periodFindingId({ ...finding, periodId }));
      if (!note) return { note: null, noteRevision: revisionOf(null) };
      const { assignee, by, ...value } = note;
      const { comment, assignedTo, notedAt: at } = value;
      return {
        note: { comment, assignedTo: assignedTo === null ? null : { id: assignedTo, name: assignee! }, by, at },
        noteRevision: revisionOf(value),
      };
    };
  }
}
