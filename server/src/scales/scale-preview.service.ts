import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { inArray, sql } from 'drizzle-orm';
import { Piscina } from 'piscina';
import { decimalOrThrow, unitsAt } from '#core/numbers';
import type { CourseLevel } from '#core/courses';
import { hundredths, tenThousandths } from '#core/scales';
import { periodShare } from '#core/transcripts';
import { bandOfBody, type PreviewScaleRequest, type ScaleEffectReply } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { CopyReader, Refusal, Settings, tables, Transactions, type Queries } from '#server/platform';
import type { EffectResult, EffectTask } from './effect-worker.js';
import { ScaleUseService, type ScaleUse } from './scale-use.service.js';
import { ScalesRepository } from './scales.repository.js';

interface GpaSetting {
  readonly additions: Readonly<Record<CourseLevel, string>>;
  readonly digits: number;
  readonly rounding: EffectTask['rounding'];
}

const { people, sections } = tables;

/** Works out what a draft of a scale would do to the grades of a period, in a thread of its own. */
@Injectable()
export class ScalePreviewService implements OnApplicationShutdown {
  private readonly pool = new Piscina({
    filename: workerFile(),
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 30_000,
    execArgv: [],
  });

  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly scales: ScalesRepository,
    private readonly uses: ScaleUseService,
    private readonly copies: CopyReader,
    private readonly settings: Settings,
  ) {}

  async onApplicationShutdown(): Promise<void> {
    await this.pool.destroy();
  }

  async preview(scaleId: number, { periodId, bands }: PreviewScaleRequest): Promise<ScaleEffectReply> {
    const queries = this.transactions.reading;
    const started = performance.now();
    const scale = await this.scales.byIdOrThrow(queries, scaleId);
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const saved = (await this.scales.inForce(queries, [scaleId], period)).get(scaleId);
    const uses = (await this.uses.inPeriod(queries, period)).get(scaleId) ?? [];
    const [use] = uses;
    if (!saved || !use)
      throw new Refusal('not-found', { what: `grade of ${period.name} on ${scale.name}`, id: scaleId });
    const rows = await this.copies.read(gradesQuery(uses, periodId));
    const { digits, rounding } = use.item;
    const gpa = await this.gpaSetting(queries);
    const task: EffectTask = {
      rows,
      saved: saved.bands,
      draft: bands.map(bandOfBody),
      digits,
      rounding,
      weights: await this.weights(queries, uses, period, gpa),
      gpa: { digits: gpa.digits, rounding: gpa.rounding },
    };
    const effect = (await this.pool.run(task)) as EffectResult;
    const reply = await this.withNames(queries, effect, uses);
    return { ...reply, milliseconds: Math.round(performance.now() - started) };
  }

  /** What the grades of each item of a section weigh in a GPA. */
  private async weights(
    queries: Queries,
    uses: readonly ScaleUse[],
    period: SchoolPeriod,
    gpa: GpaSetting,
  ): Promise<EffectTask['weights']> {
    const all = await this.periods.ofSchool(queries, period.schoolId);
    const siblings = all.filter(({ kind }) => kind === period.kind);
    return uses.flatMap(({ item, sections: own }) =>
      own.map(({ id, course, runs }) => {
        const share = periodShare(course.credits, runs, period, siblings);
        const addition = decimalOrThrow(gpa.additions[course.level]);
        const counts = item.countsInGpa && item.onTranscript && course.countsInGpa && course.onTranscript;
        return [
          item.id,
          id,
          Number(unitsAt(share, Math.log10(tenThousandths))),
          Number(unitsAt(addition, Math.log10(hundredths))),
          counts ? 1 : 0,
        ] as const;
      }),
    );
  }

  private async gpaSetting(queries: Queries): Promise<GpaSetting> {
    const plain: GpaSetting = {
      additions: { regular: '0', honours: '0', college: '0' },
      digits: 3,
      rounding: 'halfUp',
    };
    return ((await this.settings.value(queries, 'gpa')) as GpaSetting | undefined) ?? plain;
  }

  private async withNames(
    queries: Queries,
    effect: EffectResult,
    uses: readonly ScaleUse[],
  ): Promise<Omit<ScaleEffectReply, 'milliseconds'>> {
    const items = new Map(uses.map(({ item }) => [item.id, item.name]));
    const ids = effect.students.map(({ studentId }) => studentId);
    if (ids.length === 0) return { ...effect, students: [] };
    const name = sql<string>`${people.familyName} || ', ' || ${people.givenName}`;
    const named = await queries
      .select({ id: people.id, student: name, studentNumber: people.sourcedId })
      .from(people)
      .where(inArray(people.id, ids))
      .orderBy(people.familyName, people.givenName, people.id);
    const sectionIds = [...new Set(effect.students.flatMap(({ changes }) => changes.map((each) => each.sectionId)))];
    const sectionNames = await this.sectionNames(queries, sectionIds);
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

  private async sectionNames(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, string>> {
    const rows = await queries
      .select({ id: sections.id, name: sql<string>`${tables.courses.title} || ' ' || ${sections.number}` })
      .from(sections)
      .innerJoin(tables.courses, sql`${tables.courses.id} = ${sections.courseId}`)
      .where(inArray(sections.id, [...ids]));
    return new Map(rows.map(({ id, name }) => [id, name]));
  }
}

/** The grades on a scale, posted or only computed, that carry no code. Numbers alone go into the text. */
function gradesQuery(uses: readonly ScaleUse[], periodId: number): string {
  const pairs = uses.flatMap(({ item, sections: own }) => own.map(({ id }) => `(${item.id},${id})`));
  return `SELECT e.student_id, used.item, e.section_id, g.percent, g.label, c.percent
    FROM (VALUES ${pairs.join(',')}) AS used(item, section)
    JOIN enrollments e ON e.section_id = used.section
    LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = used.item AND g.period_id = ${periodId}
    LEFT JOIN computed_percents c ON c.enrollment_id = e.id AND c.item_id = used.item AND c.period_id = ${periodId}
    WHERE g.code IS NULL AND coalesce(g.percent::text, g.label, c.percent::text) IS NOT NULL`;
}

/** The built worker, also when the server itself runs from its sources, as in tests. */
function workerFile(): string {
  const beside = fileURLToPath(new URL('./effect-worker.js', import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL('../../dist/scales/effect-worker.js', import.meta.url));
}
