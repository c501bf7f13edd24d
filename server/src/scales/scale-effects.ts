import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { decimalOrThrow, formatDecimal, unitsAt } from '#core/numbers';
import { hundredths, tenThousandths } from '#core/period-view';
import { bandsTogether, type Band } from '#core/scales';
import { bodyOfBand, type ScaleEffectReply } from '#contract/scales';
import type { GpaPolicyBody } from '#contract/transcripts';
import type { SchoolPeriod } from '#server/calendar';
import {
  enrolledInText,
  gradedInText,
  GpaPolicyRepository,
  ScaleVersionsRepository,
  type PeriodView,
  type RunningSection,
} from '#server/period-view';
import {
  intArray,
  CopyReader,
  personName,
  tables,
  ThreadPool,
  Transactions,
  workerFile,
  type Queries,
  studentNumber,
} from '#server/platform';
import type { EffectResult, EffectTask, EffectUse } from './effect-worker.js';

const { people } = tables;
const effectWorker = workerFile(new URL('./effect-worker.js', import.meta.url));

/** What a comparison rests on, as one snapshot has it. */
export interface ReadEffect {
  readonly before: PeriodView;
  readonly task: EffectTask;
}

/** Compares a period with the same period under other scales, in a thread of its own. */
@Injectable()
export class ScaleEffects {
  constructor(
    private readonly transactions: Transactions,
    private readonly versions: ScaleVersionsRepository,
    private readonly gpa: GpaPolicyRepository,
    private readonly copies: CopyReader,
    private readonly threads: ThreadPool,
  ) {}

  /** Reads what two views of a period are compared by, in a snapshot. */
  async read(queries: Queries, period: SchoolPeriod, before: PeriodView, after: PeriodView): Promise<ReadEffect> {
    const gpa = await this.gpa.read(queries);
    const { uses, precisions, levels } = usesOf(before, after, gpa);
    const versions = new Map<number, readonly Band[]>();
    for (const { reported } of [before, after])
      for (const { scales } of reported)
        for (const { version } of scales.values()) versions.set(version.id, version.bands);
    for (const [id, { bands }] of await this.postedUnder(queries, period)) versions.set(id, bands);
    const task: EffectTask = {
      rows: await this.copies.readIn(queries, gradesQuery(before, uses, levels)),
      uses,
      precisions,
      versions,
      gpa,
      mostCredits: mostCreditsOf(before),
    };
    return { before, task };
  }

  /** Works out what was read. Not inside a transaction: it takes a while, and no database. */
  async of({ before, task }: ReadEffect): Promise<Omit<ScaleEffectReply, 'milliseconds'>> {
    const { uses, versions } = task;
    const effect = await this.threads.run<EffectResult>(effectWorker, task);
    const reply = await this.withNames(effect, before);
    const concerned = uses.filter((use) => use.before !== use.after).flatMap((use) => [use.before, use.after]);
    const bands = bandsTogether(concerned.flatMap((id) => versions.get(id) ?? []));
    return { ...reply, bands: bands.map(bodyOfBand) };
  }

  /** Versions that grades of the period were posted under. */
  private async postedUnder(queries: Queries, period: SchoolPeriod) {
    const rows = await queries
      .selectDistinct({ id: tables.grades.scaleVersionId })
      .from(tables.grades)
      .where(sql`${tables.grades.periodId} = ${period.id} AND ${tables.grades.scaleVersionId} IS NOT NULL`);
    return this.versions.byId(
      queries,
      rows.map(({ id }) => id),
    );
  }

  private async withNames(
    effect: EffectResult,
    { reported, sections }: PeriodView,
  ): Promise<Omit<ScaleEffectReply, 'milliseconds' | 'bands'>> {
    const items = new Map(reported.map(({ item }) => [item.id, item.name]));
    const sectionNames = new Map(sections.map(({ id, name }) => [id, name]));
    const ids = effect.students.map(({ studentId }) => studentId);
    if (ids.length === 0) return { ...effect, students: [] };
    const named = await this.transactions.reading
      .select({ id: people.id, student: personName, studentNumber })
      .from(people)
      .where(sql`${people.id} = ANY(${intArray(ids)})`)
      .orderBy(people.familyName, people.givenName, people.id);
    const byId = new Map(effect.students.map((each) => [each.studentId, each]));
    return {
      ...effect,
      students: named.map(({ id, student, studentNumber }) => {
        const { changes, ...rest } = byId.get(id)!;
        const shown = changes.map(({ itemId, sectionId, ...change }) => ({
          ...change,
          item: items.get(itemId)!,
          section: sectionNames.get(sectionId)!,
        }));
        return { ...rest, student, studentNumber, changes: shown };
      }),
    };
  }
}

/** Each item of each section: its versions now and then, and what its grades weigh in a GPA, as on a transcript. */
function usesOf(before: PeriodView, after: PeriodView, gpa: GpaPolicyBody) {
  const then = new Map(after.reported.map(({ item, scales }) => [item.id, scales]));
  const precisions: EffectTask['precisions'][number][] = [];
  const levels = new Set<string>();
  const uses = before.reported.flatMap(({ item, sections, scales }) => {
    const { id: itemId, digits, rounding } = item;
    precisions.push({ digits, rounding });
    const precision = precisions.length - 1;
    return sections.map(({ id, course, credits }): EffectUse => {
      if (scales.get(id)?.version.kind === 'level') levels.add(`${itemId},${id}`);
      const counts = item.countsInGpa && item.onTranscript && course.countsInGpa && course.onTranscript;
      return {
        item: itemId,
        section: id,
        course: course.id,
        before: scales.get(id)?.version.id ?? 0,
        after: then.get(itemId)?.get(id)?.version.id ?? 0,
        precision,
        credits: Number(unitsAt(credits, Math.log10(tenThousandths))),
        addition: Number(unitsAt(decimalOrThrow(gpa.additions[course.level]), Math.log10(hundredths))),
        counts: counts ? 1 : 0,
      };
    });
  });
  return { uses, precisions, levels };
}

function mostCreditsOf({ sections }: { readonly sections: readonly RunningSection[] }): ReadonlyMap<number, string> {
  return new Map(
    sections.flatMap(({ course: { id, mostCredits } }) =>
      mostCredits ? [[id, formatDecimal(mostCredits)] as const] : [],
    ),
  );
}

/** The highest value that fits the columns; every scale has its highest label far below it. */
const mostPercent = 100_000;

/**
 * The grades of a period, posted or, of those who are graded, only computed; of codes those that a GPA counts as failing. Numbers alone and codes of our
 * own list go into the text, as COPY takes no parameters.
 */
function gradesQuery({ period, codes }: PeriodView, uses: readonly EffectUse[], levels: ReadonlySet<string>): string {
  const failing = [...codes.values()].filter(
    (code) => code.isFailing && code.countsInGpa && code.onTranscript && code.triesCredit,
  );
  const listed = failing.map(({ code }) => `'${code.replaceAll("'", "''")}'`).join(',') || 'NULL';
  const used = uses.map(({ item, section }) => `(${item},${section},${levels.has(`${item},${section}`)})`);
  return `SELECT e.student_id, used.item, e.section_id, g.percent, g.label, CASE WHEN g.code IS NOT NULL THEN 0 END,
      least(CASE WHEN used.is_level THEN c.level ELSE c.percent END, ${mostPercent}), g.scale_version_id
    FROM (VALUES ${used.join(',') || '(0,0,false)'}) AS used(item, section, is_level)
    JOIN enrollments e ON e.section_id = used.section AND ${enrolledInText(period)}
    LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = used.item AND g.period_id = ${period.id}
    LEFT JOIN computed_percents c ON c.enrollment_id = e.id AND c.item_id = used.item AND c.period_id = ${period.id}
    WHERE (g.code IS NULL OR g.code IN (${listed})) AND (g.id IS NOT NULL OR (${gradedInText(period)}))
      AND coalesce(g.percent::text, g.label, g.code, c.percent::text) IS NOT NULL`;
}
