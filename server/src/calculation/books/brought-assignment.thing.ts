import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { AssignmentChecks } from './assignment-checks.service.js';
import { AssignmentThing, assignmentPlace, removedNumbers, type AssignmentValue } from './assignment.thing.js';

/**
 * Assignments that a section got from another one, as it was split from it or merged with it: made and taken back by those who
 * have a say in who sits where, and in all else assignments like any. They stand as they stood, whatever is asked of new ones.
 */
@ThingOf({
  kind: 'brought-assignment',
  called: 'the assignment',
  change: 'change-people',
  see: 'read-grades',
  at: assignmentPlace,
})
export class BroughtAssignmentThing implements Thing<AssignmentValue> {
  constructor(
    private readonly assignments: AssignmentThing,
    private readonly checks: AssignmentChecks,
  ) {}

  title(value: AssignmentValue): string {
    return this.assignments.title(value);
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, AssignmentValue>> {
    return this.assignments.read(queries, ids);
  }

  /** @throws Refusal in-use where one that is to go has a score */
  async check(queries: Queries, values: ReadonlyMap<string, AssignmentValue | null>): Promise<void> {
    await this.checks.refuseUsed(queries, removedNumbers(values));
  }

  write(queries: Queries, values: ReadonlyMap<string, AssignmentValue | null>): Promise<void> {
    return this.assignments.write(queries, values);
  }
}
