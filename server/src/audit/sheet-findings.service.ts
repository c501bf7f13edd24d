import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import { findingKey, ruleById, rulesOfOneSection, shownBySheet, type Finding } from '#core/audit';
import { findingSentence, type SheetFindingCountReply, type SheetFindingsReply } from '#contract/audit';
import { PeriodsRepository } from '#server/calendar';
import { PeriodViews } from '#server/period-view';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, inForceIn, type AuditRun, type SectionFinding } from './runs/audit-runs.repository.js';
import { RecheckService } from './runs/recheck.service.js';
import { FindingNoticesRepository } from './settling/finding-notices.repository.js';
import { WaiversService } from './settling/waivers.service.js';

/** What the last audit says to those who post: of their own sheets, what stands in the way or what they were told of. */
@Injectable()
export class SheetFindingsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly notices: FindingNoticesRepository,
    private readonly rechecks: RecheckService,
  ) {}

  async ofSection(sectionId: number, periodId: number): Promise<SheetFindingsReply> {
    return this.transactions.snapshot(async (queries) => {
      const [run] = await this.runs.newest(queries, periodId, 1);
      if (!run) return { at: null, findings: [] };
      const told = await this.toldOf(queries, run, [sectionId]);
      const at = run.startedAt.toISOString();
      // As on most sheets: nothing has to be looked at again.
      if (told.length === 0) return { at, findings: [] };
      const saved = [...(await this.runs.saversSince(queries, run)).keys()];
      const isSaved = ({ enrollmentId, itemId }: Finding) =>
        saved.some((grade) => (itemId ? grade === `${enrollmentId}/${itemId}` : grade.startsWith(`${enrollmentId}/`)));
      const { gone, still } = await this.rechecks.since(queries, run, [sectionId]);
      const sinceOf = (finding: Finding) => {
        if (gone.has(findingKey(finding))) return 'gone';
        if (!isSaved(finding)) return null;
        return rulesOfOneSection.some(({ id }) => id === finding.ruleId) ? 'still' : 'saved';
      };
      return {
        at,
        findings: told.map(({ finding, at: toldAt }) => ({
          key: findingKey(finding),
          severity: severityIn(run, finding),
          enrollmentId: finding.enrollmentId,
          itemId: finding.itemId,
          sentence: findingSentence(ruleById.get(finding.ruleId)!, still.get(findingKey(finding)) ?? finding),
          toldAt: toldAt?.toISOString() ?? null,
          since: sinceOf(finding),
        })),
      };
    });
  }

  /** How many there are on each sheet that the person may open. */
  async counts(actor: Actor, periodId: number): Promise<SheetFindingCountReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const [run] = await this.runs.newest(queries, periodId, 1);
      if (!run) return [];
      const own = (await this.views.of(queries, period)).sections.filter((section) =>
        mayAt(actor, 'read-grades', ofSection(period.schoolId, section)),
      );
      const sectionIds = own.map(({ id }) => id);
      const counts = new Map<string, { sectionId: number; itemId: number | null; findings: number }>();
      for (const { finding } of await this.toldOf(queries, run, sectionIds)) {
        const { ofSection: sectionId, itemId } = finding;
        const key = `${sectionId}/${itemId}`;
        const count = counts.get(key) ?? { sectionId, itemId, findings: 0 };
        count.findings++;
        counts.set(key, count);
      }
      return [...counts.values()];
    });
  }

  private async toldOf(
    queries: Queries,
    run: AuditRun,
    sectionIds: readonly number[],
  ): Promise<{ readonly finding: SectionFinding; readonly at: Date | undefined }[]> {
    const waiverOf = await this.waivers.ofPeriod(queries, run.periodId);
    const notices = await this.notices.ofPeriod(queries, run.periodId);
    return (await this.runs.findingsOfSections(queries, run.id, sectionIds))
      .map((finding) => ({ finding, at: notices.get(findingKey(finding))?.at }))
      .filter(({ finding, at }) => at !== undefined || isInTheWay(run, finding))
      .filter(({ finding }) => waiverOf(finding)?.state !== 'holds');
  }
}

function isInTheWay(run: AuditRun, finding: Finding): boolean {
  return severityIn(run, finding) !== 'informs' && !shownBySheet.has(finding.ruleId);
}

/** A rule that was off in the run found nothing in it. */
function severityIn(run: AuditRun, { ruleId }: Finding) {
  const { severity } = inForceIn(run, ruleId);
  return severity === 'off' ? 'informs' : severity;
}
