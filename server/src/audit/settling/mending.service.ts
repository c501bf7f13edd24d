import { Injectable } from '@nestjs/common';
import { auditRules, findingKey, runRules } from '#core/audit';
import type { Mark } from '#core/posting';
import type { FindingKeyBody, MendReply, MendRequest } from '#contract/audit';
import { counted } from '#contract/messages';
import { bodyOfMark } from '#contract/posting';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { SaveSheetService, sheetId, SignOffsRepository, type SheetPlace } from '#server/posting';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository } from '../runs/audit-runs.repository.js';
import type { GradedRow } from '../snapshots/grade-fact-of.js';
import { SnapshotService, type PeriodSnapshot } from '../snapshots/snapshot.service.js';

/** A grade as its rule would set it. */
interface Mended {
  readonly sheet: SheetPlace;
  readonly graded: GradedRow;
  readonly after: Mark;
}

interface Plan {
  readonly mended: readonly Mended[];
  /** The sign-offs that go with it, by the names of their sheets. */
  readonly takenBack: readonly string[];
  readonly reply: Omit<MendReply, 'isMended'>;
}

/** Sets right what a rule can set right by itself: looked at first, then carried out as one change. */
@Injectable()
export class MendingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly runs: AuditRunsRepository,
    private readonly snapshots: SnapshotService,
    private readonly signOffs: SignOffsRepository,
    private readonly sheets: SaveSheetService,
    private readonly changes: Changes,
  ) {}

  /** Previews where the request names no fingerprint. @throws Refusal mending-changed, period-sealed */
  async mend(actor: Actor, { fingerprint, ...request }: MendRequest): Promise<MendReply> {
    if (fingerprint === undefined) {
      const { reply } = await this.transactions.snapshot((queries) => this.plan(queries, request));
      return { ...reply, isMended: false };
    }
    return this.transactions.run(async (queries) => {
      const { mended, takenBack, reply } = await this.plan(queries, request);
      if (reply.fingerprint !== fingerprint) throw new Refusal('mending-changed');
      // Sign-offs go first: a sheet that has one takes no grade.
      const edits: Edit[] = takenBack.map((id) => ({ kind: 'sign-off', id, after: null }));
      for (const [sheet, marks] of bySheet(mended))
        edits.push(...(await this.sheets.editsOfMarks(queries, sheet, marks)));
      await this.changes.make(queries, actor, { action: `mend ${counted(mended.length, 'finding')}`, edits });
      return { ...reply, isMended: true };
    });
  }

  /** What each finding's rule would set now: a grade that was changed since may need nothing any more. */
  private async plan(
    queries: Queries,
    { periodId, findings: wanted, takesBackSignOffs }: Omit<MendRequest, 'fingerprint'>,
  ): Promise<Plan> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const sections = (await this.runs.namesOf(queries, wanted)).flatMap(({ sectionId }) => sectionId ?? []);
    const { graded, snapshot } = await this.snapshots.ofPeriod(queries, period, new Set(sections));
    const at = new Map(graded.map(({ row, reporting }, index) => [`${row.enrollmentId}/${reporting.item.id}`, index]));
    const mended: Mended[] = [];
    const skipped: MendReply['skipped'][number][] = [];
    const signedOff = await this.signedOff(queries, wanted, at, graded, periodId);
    for (const key of wanted) {
      const index = at.get(`${key.enrollmentId}/${key.itemId}`);
      if (index === undefined) throw new Refusal('not-found', { what: 'grade of the period', id: findingKey(key) });
      const { row, section, reporting } = graded[index]!;
      const sheet = { sectionId: section.id, itemId: reporting.item.id, periodId };
      const after = mendedBy(key.ruleId, snapshot, index);
      const isHeld = !takesBackSignOffs && signedOff.has(sheetId(sheet));
      const why = typeof after === 'string' ? after : isHeld ? whySkipped.signedOff : undefined;
      if (why !== undefined) skipped.push({ student: row.student, section: section.name, why });
      else if (mended.some((each) => each.graded.row === row))
        skipped.push({ student: row.student, section: section.name, why: whySkipped.twice });
      else mended.push({ sheet, graded: graded[index]!, after: after as Mark });
    }
    const changes = mended.map(({ graded: { row, section }, after }) => ({
      student: row.student,
      section: section.name,
      before: row.version === 0 ? null : bodyOfMark(row.mark),
      after: bodyOfMark(after),
    }));
    const versions = mended.map(({ graded: { row } }) => [row.enrollmentId, row.version]);
    const sheets = new Set(mended.map(({ sheet }) => sheetId(sheet)));
    const takenBack = [...signedOff].filter((id) => sheets.has(id));
    const fingerprint = revisionOf({ changes, skipped, versions, takenBack });
    return { mended, takenBack, reply: { fingerprint, signedOff: signedOff.size, changes, skipped } };
  }

  private async signedOff(
    queries: Queries,
    wanted: readonly FindingKeyBody[],
    at: ReadonlyMap<string, number>,
    graded: readonly GradedRow[],
    periodId: number,
  ): Promise<ReadonlySet<string>> {
    const ids = wanted.flatMap(({ enrollmentId, itemId }) => {
      const index = at.get(`${enrollmentId}/${itemId}`);
      if (index === undefined) return [];
      const { section, reporting } = graded[index]!;
      return [sheetId({ sectionId: section.id, itemId: reporting.item.id, periodId })];
    });
    return new Set((await this.signOffs.ofSheets(queries, [...new Set(ids)])).keys());
  }
}

/** Why a finding is not mended, in words. */
const whySkipped = {
  gone: 'It is right by now.',
  nothing: 'There is nothing to go by; open the grade.',
  signedOff: 'Its sheet is signed off.',
  twice: 'Another finding of the same grade comes first.',
} as const;

/** The mark as a rule sets it, or why it sets none. */
function mendedBy(ruleId: string, { grades, ...period }: PeriodSnapshot['snapshot'], index: number): Mark | string {
  const rule = auditRules.find(({ id }) => id === ruleId);
  const fact = grades[index]!;
  if (!rule?.fix) return whySkipped.nothing;
  if (runRules([rule], { ...period, grades: [fact] }).length === 0) return whySkipped.gone;
  return rule.fix.mend(fact, period) ?? whySkipped.nothing;
}

/** In one order for everybody, as each locks its section. */
function bySheet(mended: readonly Mended[]): [SheetPlace, Map<number, Mark>][] {
  const sheets = new Map<string, [SheetPlace, Map<number, Mark>]>();
  for (const { sheet, graded, after } of mended) {
    const own = sheets.get(sheetId(sheet)) ?? [sheet, new Map<number, Mark>()];
    own[1].set(graded.row.enrollmentId, after);
    sheets.set(sheetId(sheet), own);
  }
  return [...sheets.values()].toSorted(([a], [b]) => a.sectionId - b.sectionId || a.itemId - b.itemId);
}
