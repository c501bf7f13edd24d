import { Injectable } from '@nestjs/common';
import { auditRules, compareRuns, findingKey, ruleById, type Finding } from '#core/audit';
import { computedValue } from '#core/grade-rows';
import { formatDecimal } from '#core/numbers';
import { findingSentence, type AuditReply, type AuditRunReply, type FoundReply } from '#contract/audit';
import { bodyOfMark } from '#contract/posting';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository } from '#server/calendar';
import { Transactions, type Queries } from '#server/platform';
import {
  AuditRunsRepository,
  inForceIn,
  subjectOf,
  type AuditRun,
  type FindingNames,
} from './runs/audit-runs.repository.js';
import { FindingNotesService } from './settling/finding-notes.service.js';
import { FindingNoticesRepository } from './settling/finding-notices.repository.js';
import { CertificatesService } from './certificates/certificates.service.js';
import { WaiversService } from './settling/waivers.service.js';
import { RecheckService } from './runs/recheck.service.js';
import type { GradedRow } from './snapshots/grade-fact-of.js';
import { SnapshotService } from './snapshots/snapshot.service.js';

/** What the last audit of a period found. */
@Injectable()
export class AuditService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly notes: FindingNotesService,
    private readonly notices: FindingNoticesRepository,
    private readonly certificates: CertificatesService,
    private readonly settings: RuleSettingsRepository,
    private readonly rechecks: RecheckService,
  ) {}

  /** The newest run of a period, compared with the one before it. */
  async latest(periodId: number): Promise<AuditReply> {
    return this.transactions.snapshot(async (queries) => {
      const [run, before] = await this.runs.newest(queries, periodId, 2);
      const inForce =
        run?.rules ??
        (await this.settings.inForce(queries, (await this.periods.byIdOrThrow(queries, periodId)).schoolId));
      const rules = auditRules.map(({ id, version, family, scope, settledIn, severity: own, summary, why, fix }) => {
        const { severity: effect } = inForceIn({ rules: inForce }, id);
        return {
          id,
          version,
          family,
          scope,
          settledIn: settledIn ?? null,
          severity: effect === 'off' ? own : effect,
          isOff: effect === 'off',
          summary,
          why,
          fix: fix?.says ?? null,
        };
      });
      const certificate = await this.certificates.replyOf(queries, periodId);
      return { rules, run: run ? await this.runReply(queries, run, before) : null, certificate };
    });
  }

  private async runReply(queries: Queries, run: AuditRun, before: AuditRun | undefined): Promise<AuditRunReply> {
    const again = await this.rechecks.since(queries, run);
    // What was looked at again is told as it is now.
    const findings = (await this.runs.findingsOf(queries, run.id)).map(
      (finding) => again.still.get(findingKey(finding)) ?? finding,
    );
    const earlier = before && (await this.runs.findingsOf(queries, before.id));
    const compared = compareRuns((earlier ?? []).map(findingKey), findings.map(findingKey));
    const period = await this.periods.byIdOrThrow(queries, run.periodId);
    const waivedOf = await this.waivers.withRevisions(queries, run.periodId);
    const names = await this.runs.namesOf(queries, findings);
    const addedNames = await this.runs.namesOf(queries, again.added);
    const found = new Set([...names, ...addedNames].flatMap(({ sectionId }) => sectionId ?? []));
    const { graded } = await this.snapshots.ofPeriod(queries, period, found);
    const noteOf = await this.notes.ofPeriod(queries, run.periodId);
    const notices = await this.notices.ofPeriod(queries, run.periodId);
    const noticeOf = (finding: Finding, graded: GradedRow | undefined) => {
      const notice = notices.get(findingKey(finding));
      if (!notice) return null;
      const { to, at } = notice;
      const postedAt = graded?.row.postedAt ?? null;
      return { to, at: at.toISOString(), isAnswered: postedAt !== null && postedAt > at };
    };
    const rows = new Map(graded.map((each) => [`${each.row.enrollmentId}:${each.reporting.item.id}`, each]));
    const gradedOf = ({ enrollmentId, itemId }: Finding) => rows.get(`${enrollmentId}:${itemId}`);
    return {
      id: run.id,
      startedBy: run.startedByName,
      startedAt: run.startedAt.toISOString(),
      gradesChecked: run.gradesChecked,
      milliseconds: run.milliseconds,
      faults: run.rules.flatMap(({ id, problem }) => (problem === undefined ? [] : [{ ruleId: id, problem }])),
      findings: findings.map((finding, at) => {
        const graded = gradedOf(finding);
        return {
          ...foundReply(finding, names[at]!, graded),
          isNew: before !== undefined && compared.added.has(findingKey(finding)),
          isGone: again.gone.has(findingKey(finding)),
          ...waivedOf(finding),
          ...noteOf(finding),
          notice: noticeOf(finding, graded),
        };
      }),
      sinceLastRun: before
        ? {
            added: compared.added.size,
            still: compared.still.size,
            gone: compared.gone.size,
            at: before.startedAt.toISOString(),
          }
        : null,
      changedSince: (await this.runs.changedSince(queries, run.periodId, run.startedAt)).reduce(
        (sum, { grades }) => sum + grades,
        0,
      ),
      again: {
        isLooked: again.looked.size === again.sectionIds.length,
        isBeyond: again.isBeyond,
        added: again.added.map((finding, at) => foundReply(finding, addedNames[at]!, gradedOf(finding))),
      },
    };
  }
}

/** A grade of which only the finding knows, as its course no longer reports the item, has no mark. */
function foundReply(
  finding: Finding,
  { sectionId, ...names }: FindingNames,
  graded: GradedRow | undefined,
): FoundReply {
  const value = graded && computedValue(graded.row, graded.scale);
  const { message: _message, data: _data, ...place } = finding;
  return {
    ...place,
    ...names,
    key: findingKey(finding),
    sentence: findingSentence(ruleById.get(finding.ruleId)!, finding),
    subject: subjectOf({ sectionId, ...names }),
    openSectionId: sectionId,
    mark: graded ? bodyOfMark(graded.row.mark) : null,
    computed: value ? formatDecimal(value) : null,
    postedBy: graded?.row.postedBy ?? null,
    postedAt: graded?.row.postedAt?.toISOString() ?? null,
  };
}
