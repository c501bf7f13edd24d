import { Injectable } from '@nestjs/common';
import type { Finding } from '#core/audit';
import type { SchoolPeriod } from '#server/calendar';
import { Refusal, type Queries } from '#server/platform';
import { AuditRunsRepository, inForceIn, type AuditRun } from '../runs/audit-runs.repository.js';
import { WaiversService } from '../settling/waivers.service.js';

/** How far the audit of a period is, or of some of its courses, as a certificate and a seal ask. */
export interface AuditStanding {
  /** Empty for all of the school. */
  readonly courseIds: readonly number[];
  readonly run: AuditRun | undefined;
  readonly findings: readonly Finding[];
  readonly waiverOf: Awaited<ReturnType<WaiversService['ofPeriod']>>;
  /** Findings that keep the period from being sealed and that nobody let stand. */
  readonly blocking: number;
  /** A rule that could not run; what it would have found is not known. */
  readonly fault: AuditRun['rules'][number] | undefined;
  /** Grades saved after the run began. */
  readonly changed: number;
}

/** Tells how far the last audit of a period is. */
@Injectable()
export class AuditStandingsService {
  constructor(
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
  ) {}

  /** Of all of the period. */
  async ofPeriod(queries: Queries, periodId: number): Promise<AuditStanding> {
    return (await this.read(queries, periodId))();
  }

  /**
   * Reads the audit once, to be asked of one choice of courses after the other. What is about no course, as an item without
   * a window, concerns every choice; no courses are all of the school.
   */
  async byCourses(queries: Queries, periodId: number): Promise<(courseIds: readonly number[]) => AuditStanding> {
    const ask = await this.read(queries, periodId);
    const { findings } = ask();
    const courseOf = new Map<Finding, number | null>();
    for (const [at, courseId] of (await this.runs.courseIdsOf(queries, findings)).entries())
      courseOf.set(findings[at]!, courseId);
    return (courseIds) => {
      if (courseIds.length === 0) return ask();
      const chosen = new Set(courseIds);
      const concerns = (courseId: number | null) => courseId === null || chosen.has(courseId);
      return ask(courseIds, (finding) => concerns(courseOf.get(finding)!), concerns);
    };
  }

  private async read(queries: Queries, periodId: number) {
    const [run] = await this.runs.newest(queries, periodId, 1);
    const all = run ? await this.runs.findingsOf(queries, run.id) : [];
    const waiverOf = await this.waivers.ofPeriod(queries, periodId);
    const changed = run ? await this.runs.changedSince(queries, periodId, run.startedAt) : [];
    const fault = run?.rules.find(({ problem }) => problem !== undefined);
    const isBlocking = (finding: Finding) =>
      inForceIn(run!, finding.ruleId).severity === 'blocks' && waiverOf(finding)?.state !== 'holds';
    const everything = () => true;
    return (
      courseIds: readonly number[] = [],
      isAbout: (finding: Finding) => boolean = everything,
      isOf: (courseId: number) => boolean = everything,
    ): AuditStanding => {
      const findings = all.filter(isAbout);
      return {
        courseIds,
        run,
        findings,
        waiverOf,
        blocking: findings.filter(isBlocking).length,
        fault,
        changed: changed.reduce((sum, { courseId, grades }) => (isOf(courseId) ? sum + grades : sum), 0),
      };
    };
  }
}

/**
 * The run of an audit that is done.
 * @throws Refusal audit-needed, audit-incomplete, audit-outdated, findings-block, courses-block
 */
export function doneOrThrow(
  { name }: Pick<SchoolPeriod, 'name'>,
  { courseIds, run, fault, changed, blocking }: AuditStanding,
): AuditRun {
  if (!run) throw new Refusal('audit-needed', { period: name });
  if (fault) throw new Refusal('audit-incomplete', { period: name, rule: fault.id, problem: fault.problem! });
  if (changed > 0) throw new Refusal('audit-outdated', { at: run.startedAt.toISOString() });
  if (blocking > 0 && courseIds.length > 0) throw new Refusal('courses-block', { count: blocking });
  if (blocking > 0) throw new Refusal('findings-block', { count: blocking, period: name });
  return run;
}
