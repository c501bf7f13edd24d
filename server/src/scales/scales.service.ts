import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { checkScale, type Band, type ScaleFault } from '#core/scales';
import { scaleFaultSentence, type SaveScaleRequest, type ScaleReply, type ScaleVersionReply } from '#contract/scales';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/log';
import { Clock, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { precisionOf, ReportingService, type Reporting } from '#server/report-items';
import { bandBody, bandOfBody } from './band-body.js';
import { ScalesRepository, type ScaleVersion } from './scales.repository.js';

@Injectable()
export class ScalesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly periods: PeriodsRepository,
    private readonly reporting: ReportingService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** The scales that the items of a period use, with the period's real percents. */
  async inPeriod(periodId: number): Promise<ScaleReply[]> {
    const queries = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const replies: ScaleReply[] = [];
    for (const reporting of await this.reporting.inPeriod(queries, period)) {
      const version = await this.scales.inForceOrThrow(queries, reporting.item.scaleId, period);
      replies.push(await this.reply(queries, version, reporting, periodId));
    }
    return replies;
  }

  /** Saves a draft as the next version, in force from a period on. Grades that are posted keep theirs. */
  async save(
    actor: Actor,
    scaleId: number,
    { basedOnVersion, fromPeriodId, bands: bodies }: SaveScaleRequest,
  ): Promise<ScaleReply> {
    await this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, scaleId);
      const period = await this.periods.byIdOrThrow(queries, fromPeriodId);
      const [reporting] = (await this.reporting.inPeriod(queries, period)).filter(
        ({ item }) => item.scaleId === scaleId,
      );
      if (!reporting) throw new Refusal('not-found', { what: `period that uses ${scale.name}`, id: fromPeriodId });
      const current = await this.scales.latestNumberLocked(queries, scaleId);
      if (current !== basedOnVersion) throw new Refusal('scale-changed', { current, yours: basedOnVersion });
      const bands = bodies.map(bandOfBody);
      refuseFaults(checkScale(bands, precisionOf(reporting.item)));
      const before = await this.scales.inForceOrThrow(queries, scaleId, period);
      const version = {
        scaleId,
        number: current + 1,
        fromPeriodId,
        savedBy: actor.personId,
        createdAt: this.clock.now(),
      };
      await this.scales.addVersion(queries, version, bands);
      const show = (number: number, shown: readonly Band[]) => ({
        number,
        fromPeriod: period.name,
        bands: shown.map(bandBody),
      });
      await this.log.record(queries, actor, [
        {
          action: 'save scale',
          thing: `scale ${scaleId}`,
          before: show(before.number, before.bands),
          after: show(version.number, bands),
        },
      ]);
    });
    const saved = (await this.inPeriod(fromPeriodId)).find(({ id }) => id === scaleId);
    if (!saved) throw new Error(`scale ${scaleId} vanished while it was saved`);
    return saved;
  }

  private async reply(
    queries: Queries,
    version: ScaleVersion,
    { item, sections }: Reporting,
    periodId: number,
  ): Promise<ScaleReply> {
    const history = await this.scales.history(queries, version.scaleId);
    const versions: ScaleVersionReply[] = history.map(({ savedAt, ...entry }) => ({
      ...entry,
      savedAt: savedAt.toISOString(),
    }));
    return {
      id: version.scaleId,
      name: version.scaleName,
      itemName: item.name,
      digits: item.digits,
      rounding: item.rounding,
      version: versions.find(({ number }) => number === version.number)!,
      latestVersion: versions[0]!.number,
      bands: version.bands.map(bandBody),
      versions,
      coursesUsingIt: new Set(sections.map(({ course }) => course.id)).size,
      tallies: await this.tallies(queries, item.id, periodId),
    };
  }

  /** Each student's percent once: the posted one, or the computed one where no code or percent is posted. */
  private async tallies(queries: Queries, itemId: number, periodId: number) {
    const { rows } = await queries.execute<{ percent: string; grades: number }>(sql`
      SELECT trim_scale(coalesce(g.percent, c.percent))::text AS percent, count(*)::int AS grades
      FROM (SELECT * FROM grades WHERE item_id = ${itemId} AND period_id = ${periodId}) g
      FULL JOIN (SELECT * FROM computed_grades WHERE item_id = ${itemId} AND period_id = ${periodId}) c
        ON c.enrollment_id = g.enrollment_id
      WHERE coalesce(g.percent, c.percent) IS NOT NULL AND g.code IS NULL
      GROUP BY 1`);
    return rows;
  }
}

function refuseFaults(faults: readonly ScaleFault[]): void {
  const blocking = faults.filter(({ severity }) => severity === 'blocks');
  if (blocking.length === 0) return;
  throw new Refusal('scale-faulty', {}, blocking.map(fieldFault));
}

function fieldFault(fault: ScaleFault): FieldFault {
  const column = fault.code === 'label-empty' || fault.code === 'label-twice' ? 'label' : 'lowest';
  const field = fault.index === null ? 'bands' : `bands.${fault.index}.${column}`;
  return { field, detail: scaleFaultSentence(fault) };
}
