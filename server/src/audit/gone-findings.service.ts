import { Injectable } from '@nestjs/common';
import { compareRuns, findingKey, ruleById } from '#core/audit';
import { findingSentence, type GoneFindingReply } from '#contract/audit';
import { Transactions } from '#server/platform';
import { AuditRunsRepository, inForceIn, subjectOf } from './runs/audit-runs.repository.js';

/** What the last run no longer found, and who saw to it. */
@Injectable()
export class GoneFindingsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly runs: AuditRunsRepository,
  ) {}

  /** In the order of the run before; none where there is no run before. */
  async ofPeriod(periodId: number): Promise<GoneFindingReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const [last, before] = await this.runs.newest(queries, periodId, 2);
      if (!last || !before) return [];
      const [now, earlier] = [
        await this.runs.findingsOf(queries, last.id),
        await this.runs.findingsOf(queries, before.id),
      ];
      const { gone } = compareRuns(earlier.map(findingKey), now.map(findingKey));
      const findings = earlier.filter((finding) => gone.has(findingKey(finding)));
      const names = await this.runs.namesOf(queries, findings);
      const savers = await this.runs.saversSince(queries, before);
      return findings.map((finding, at) => {
        const { ruleId, enrollmentId, itemId } = finding;
        const rule = ruleById.get(ruleId)!;
        const saver = savers.get(`${enrollmentId}/${itemId}`);
        const isOff = inForceIn(last, ruleId).severity === 'off';
        return {
          key: findingKey(finding),
          summary: rule.summary,
          sentence: findingSentence(rule, finding),
          subject: subjectOf(names[at]!),
          section: names[at]!.section,
          why: isOff ? 'rule-off' : saver ? 'saved' : 'elsewhere',
          by: saver?.by ?? null,
          at: saver?.at ?? null,
        };
      });
    });
  }
}
