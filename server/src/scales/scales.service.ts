import { Injectable } from '@nestjs/common';
import { decimalOrThrow, formatDecimal, roundHalfUp } from '#core/numbers';
import { periodView, versionsInForce } from '#core/period-view';
import {
  checkScale,
  deriveBands,
  placementsInForce,
  scaleInForce,
  type Band,
  type Precision,
  type ScaleFault,
  type ScaleMeaning,
} from '#core/scales';
import {
  bandOfBody,
  bodyOfBand,
  scaleFaultSentence,
  type NewScaleRequest,
  type SaveScaleRequest,
  type ScaleFactsRequest,
  type ScaleReply,
  type ScalesReply,
  type TieBody,
} from '#contract/scales';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PlacementsRepository, placeName, seekerOf } from '#server/courses';
import { bringBackRows, ChangeLog } from '#server/log';
import { Clock, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { PeriodViews, ScaleVersionsRepository, type ScaleVersion, type SchoolFacts } from '#server/period-view';
import { precisionOf } from '#server/report-items';
import { ScaleUseService, usesIn, type ScaleUse } from './scale-use.service.js';
import { followingVersions } from './following-versions.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';
import { decimalTie } from './tie.js';

/** How a scale is looked up that no item uses yet. */
const usualPrecision = { digits: 1, rounding: 'halfUp' } as const;

@Injectable()
export class ScalesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly periods: PeriodsRepository,
    private readonly placements: PlacementsRepository,
    private readonly uses: ScaleUseService,
    private readonly views: PeriodViews,
    private readonly versions: ScaleVersionsRepository,
    private readonly recalculation: RecalculationService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** The scales a school can use, with a period's real percents, and where each is in force. */
  async inPeriod(periodId: number): Promise<ScalesReply> {
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    return this.read(this.transactions.reading, periodId);
  }

  /** Saves a draft as the next version, in force from a period on. Grades that are posted keep theirs. */
  async save(actor: Actor, scaleId: number, request: SaveScaleRequest): Promise<ScalesReply> {
    const { basedOnVersion, fromPeriodId, bands: bodies } = request;
    return this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, scaleId);
      await this.refuseTied(queries, scale);
      const period = await this.periods.byIdOrThrow(queries, fromPeriodId);
      await this.periods.refuseSealedFrom(queries, period, scale.schoolId);
      const current = await this.scales.latestNumberLocked(queries, scaleId);
      if (current !== basedOnVersion) throw new Refusal('scale-changed', { current, yours: basedOnVersion });
      const bands = bodies.map(bandOfBody);
      refuseFaults(
        checkScale(bands, await this.precisionOf(queries, scaleId, period), await this.meaning(queries, scale)),
      );
      await this.addVersion(queries, actor, scale, period, bands);
      return this.read(queries, fromPeriodId);
    });
  }

  async add(actor: Actor, schoolId: number, request: NewScaleRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, request.fromPeriodId);
      await this.refuseName(queries, schoolId, null, request.name);
      const tie = decimalTie(request.tie);
      const bands = tie
        ? deriveBands((await this.scales.inForceOrThrow(queries, schoolId, tie.toId, period)).bands, tie.shift)
        : request.bands.map(bandOfBody);
      const { name, kind, isDistrictWide } = request;
      const highestLevel = request.highestLevel === null ? null : decimalOrThrow(request.highestLevel);
      const precision = { digits: usualPrecision.digits, rounding: roundHalfUp };
      refuseFaults(checkScale(bands, precision, await this.meaning(queries, { kind, highestLevel })));
      const row = { schoolId: isDistrictWide ? null : schoolId, name: name.trim(), kind, tie, highestLevel };
      const id = await this.scales.add(queries, row);
      await this.addVersion(queries, actor, { ...row, id }, period, bands);
      return this.read(queries, period.id);
    });
  }

  /** Changes a scale's name and what it is tied to. Tied anew, it takes over the other one's bands as its next version. */
  async changeFacts(actor: Actor, id: number, periodId: number, request: ScaleFactsRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.scales.byIdOrThrow(queries, id);
      const period = await this.periods.byIdOrThrow(queries, periodId);
      await this.refuseName(queries, period.schoolId, id, request.name);
      const tie = decimalTie(request.tie);
      if (tie) await this.refuseTieCycle(queries, before, tie.toId);
      await this.scales.changeFacts(queries, id, request.name.trim(), tie);
      const change = { name: request.name, tie: request.tie };
      await this.log.record(queries, actor, [
        {
          action: 'change scale',
          thing: `scale ${id}`,
          before: { name: before.name, tie: tieBody(before) },
          after: change,
        },
      ]);
      if (tie && JSON.stringify(tieBody(before)) !== JSON.stringify(request.tie)) {
        const base = await this.scales.inForceOrThrow(queries, period.schoolId, tie.toId, period);
        await this.periods.refuseSealedFrom(queries, period, before.schoolId);
        await this.scales.latestNumberLocked(queries, id);
        const bands = deriveBands(base.bands, tie.shift);
        refuseFaults(
          checkScale(bands, await this.precisionOf(queries, id, period), await this.meaning(queries, before)),
        );
        await this.addVersion(queries, actor, { ...before, tie }, period, bands);
      }
      return this.read(queries, periodId);
    });
  }

  async remove(actor: Actor, id: number, periodId: number): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, id);
      const uses = await this.scales.usesOf(queries, id);
      if (uses) {
        const instead = 'Put another scale in force in its places first; a scale that grades were posted under stays.';
        throw new Refusal('in-use', { what: 'The scale', name: scale.name, uses, instead });
      }
      const before = { name: scale.name, kind: scale.kind, rows: await this.scales.remove(queries, id) };
      await this.log.record(queries, actor, [{ action: 'remove scale', thing: `scale ${id}`, before, after: null }]);
      return this.read(queries, periodId);
    });
  }

  /** Undoes the removal of a scale: with its versions, under the number that it had. */
  async restore(actor: Actor, id: number, periodId: number): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      await bringBackRows(queries, `scale ${id}`, 'scale');
      const { name, kind } = await this.scales.byIdOrThrow(queries, id);
      await this.log.record(queries, actor, [
        { action: 'bring back scale', thing: `scale ${id}`, before: null, after: { name, kind } },
      ]);
      return this.read(queries, periodId);
    });
  }

  private async meaning(
    queries: Queries,
    { kind, highestLevel }: Pick<ScaleRow, 'kind' | 'highestLevel'>,
  ): Promise<ScaleMeaning> {
    const codes = await this.versions.codes(queries);
    return { kind, highestLevel, codes: codes.map(({ code }) => code) };
  }

  /** How the first item that uses a scale in a period looks values up. */
  async precisionOf(queries: Queries, scaleId: number, period: SchoolPeriod): Promise<Precision> {
    const [use] = (await this.uses.inPeriod(queries, period)).get(scaleId) ?? [];
    return precisionOf(use?.item ?? usualPrecision);
  }

  private async read(queries: Queries, periodId: number): Promise<ScalesReply> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const scales = await this.scales.ofSchool(queries, period.schoolId);
    const facts = await this.views.factsOf(queries, period.schoolId);
    const inForce = versionsInForce(facts.versions, period);
    const uses = usesIn(periodView(facts, period));
    const replies: ScaleReply[] = [];
    for (const scale of scales) {
      const version = inForce.get(scale.id) ?? facts.versions.find(({ scaleId }) => scaleId === scale.id);
      if (version) replies.push(await this.reply(queries, scales, scale, version, uses.get(scale.id) ?? [], period));
    }
    const codes = (await this.versions.codes(queries)).map(({ code }) => code);
    return { scales: replies, codes, ...(await this.placed(queries, facts, period)) };
  }

  private async reply(
    queries: Queries,
    scales: readonly ScaleRow[],
    { id, schoolId, name, kind, tie, highestLevel }: ScaleRow,
    version: ScaleVersion,
    uses: readonly ScaleUse[],
    period: SchoolPeriod,
  ): Promise<ScaleReply> {
    const history = await this.scales.history(queries, id);
    const versions = history.map(({ savedAt, ...entry }) => ({ ...entry, savedAt: savedAt.toISOString() }));
    const { digits, rounding } = uses[0]?.item ?? usualPrecision;
    const own = tie && scales.find((other) => other.id === tie.toId);
    return {
      id,
      name,
      isDistrictWide: schoolId === null,
      kind,
      highestLevel: highestLevel && formatDecimal(highestLevel),
      tie: own ? { ...tieBody({ tie })!, toName: own.name } : null,
      followers: scales.filter((other) => other.tie?.toId === id).map((other) => ({ id: other.id, name: other.name })),
      digits,
      rounding,
      version: versions.find(({ number }) => number === version.number)!,
      latestVersion: versions[0]!.number,
      bands: version.bands.map(bodyOfBand),
      versions,
      items: uses.map(({ item }) => item.name),
      coursesUsingIt: new Set(uses.flatMap(({ sections }) => sections.map(({ course }) => course.id))).size,
      tallies: await this.uses.percents(queries, uses, period, kind === 'level'),
    };
  }

  private async placed(
    queries: Queries,
    { courses, placements, versions }: SchoolFacts,
    period: SchoolPeriod,
  ): Promise<Omit<ScalesReply, 'scales' | 'codes'>> {
    const begun = versionsInForce(versions, period);
    const inForce = placementsInForce(placements, period);
    const counted = inForce.filter(({ scaleId }) => begun.has(scaleId));
    const titles = new Map(courses.map(({ id, title }) => [id, title]));
    const sectionNames = await this.placements.sectionNames(queries, period.schoolId);
    const scaleNames = await this.placements.scaleNames(queries);
    const periodNames = new Map(
      (await this.periods.ofSchool(queries, period.schoolId)).map(({ id, name }) => [id, name]),
    );
    const nameOf = (placement: (typeof placements)[number]) =>
      titles.get(placement.courseId ?? 0) ??
      sectionNames.get(placement.sectionId ?? 0) ??
      placeName({ ...placement, scaleId: placement.scaleId ?? 0 });
    const fromPeriodOf = ({ fromPeriodId }: (typeof placements)[number]) =>
      fromPeriodId === null ? null : (periodNames.get(fromPeriodId) ?? 'an earlier period');
    const dated = new Map(placements.map((placement) => [placement.id, placement]));
    return {
      placements: inForce.map(({ schoolId: _schoolId, ...placement }) => ({
        ...placement,
        place: nameOf(dated.get(placement.id)!),
        fromPeriod: fromPeriodOf(dated.get(placement.id)!),
        isBegun: begun.has(placement.scaleId),
      })),
      laterPlacements: placements
        .filter(({ fromDay }) => fromDay !== null && fromDay > period.startsOn)
        .map((placement) => ({
          place: nameOf(placement),
          scale: placement.scaleId === null ? null : (scaleNames.get(placement.scaleId) ?? null),
          fromPeriod: fromPeriodOf(placement)!,
        })),
      departments: [...new Set(courses.map(({ department }) => department))].toSorted(),
      sections: [...sectionNames].map(([id, name]) => ({ id, name })).toSorted((a, b) => a.name.localeCompare(b.name)),
      courses: courses.map((course) => {
        const found = scaleInForce(counted, seekerOf(course));
        return {
          id: course.id,
          title: course.title,
          scaleId: found?.placement.scaleId ?? null,
          placementId: found?.placement.id ?? null,
          overruled: found?.overruled.length ?? 0,
        };
      }),
    };
  }

  /** Adds the next version, and with it those of the scales that are tied to this one, and logs them. */
  private async addVersion(
    queries: Queries,
    actor: Actor,
    scale: ScaleRow,
    period: SchoolPeriod,
    bands: readonly Band[],
  ): Promise<void> {
    const versions = await this.versions.all(queries);
    const scales = await this.scales.all(queries);
    const next = followingVersions(scales, versions, {
      scaleId: scale.id,
      fromPeriodId: period.id,
      fromDay: period.startsOn,
      bands,
    });
    for (const { scaleId, fromPeriodId, bands: own } of next) {
      const follower = scales.find(({ id }) => id === scaleId)!;
      await this.writeVersion(queries, actor, follower, await this.periods.byIdOrThrow(queries, fromPeriodId), own);
    }
  }

  private async writeVersion(
    queries: Queries,
    actor: Actor,
    scale: ScaleRow,
    period: SchoolPeriod,
    bands: readonly Band[],
  ): Promise<void> {
    const number = (await this.scales.latestNumberLocked(queries, scale.id)) + 1;
    const versions = await this.versions.all(queries);
    const before = versionsInForce(versions, period).get(scale.id);
    const version = { scaleId: scale.id, number, fromPeriodId: period.id, savedBy: actor.personId };
    await this.scales.addVersion(queries, { ...version, createdAt: this.clock.now() }, bands);
    const show = (shownNumber: number, shown: readonly Band[]) => ({
      number: shownNumber,
      fromPeriod: period.name,
      bands: shown.map(bodyOfBand),
    });
    await this.log.record(queries, actor, [
      {
        action: 'save scale',
        thing: `scale ${scale.id}`,
        before: before ? show(before.number, before.bands) : null,
        after: { name: scale.name, ...show(number, bands) },
      },
    ]);
  }

  private async refuseTied(queries: Queries, { name, tie }: ScaleRow): Promise<void> {
    if (!tie) return;
    throw new Refusal('scale-tied', { name, other: (await this.scales.byIdOrThrow(queries, tie.toId)).name });
  }

  private async refuseTieCycle(queries: Queries, scale: ScaleRow, toId: number): Promise<void> {
    const way: number[] = [];
    for (let at: number | null = toId; at !== null && !way.includes(at);) {
      const other: ScaleRow = await this.scales.byIdOrThrow(queries, at);
      if (at === scale.id) {
        const first = await this.scales.byIdOrThrow(queries, toId);
        throw new Refusal('tie-cycle', { name: scale.name, other: first.name });
      }
      way.push(at);
      at = other.tie?.toId ?? null;
    }
  }

  private async refuseName(queries: Queries, schoolId: number, id: number | null, name: string): Promise<void> {
    const folded = name.trim().toLowerCase();
    const others = (await this.scales.ofSchool(queries, schoolId)).filter((scale) => scale.id !== id);
    if (!others.some((scale) => scale.name.toLowerCase() === folded)) return;
    throw new Refusal('fields-wrong', {}, [{ field: 'name', detail: 'a name that no other scale of the school has' }]);
  }
}

function tieBody({ tie }: Pick<ScaleRow, 'tie'>): TieBody | null {
  return (
    tie && {
      toId: tie.toId,
      cutOffShift: formatDecimal(tie.shift.cutOffs),
      pointsShift: formatDecimal(tie.shift.points),
    }
  );
}

function refuseFaults(faults: readonly ScaleFault[]): void {
  const blocking = faults.filter(({ severity }) => severity === 'blocks');
  if (blocking.length === 0) return;
  throw new Refusal('scale-faulty', {}, blocking.map(fieldFault));
}

function fieldFault(fault: ScaleFault): FieldFault {
  const column = fault.code.startsWith('label-') ? 'label' : 'lowest';
  const field = fault.index === null ? 'bands' : `bands.${fault.index}.${column}`;
  return { field, detail: scaleFaultSentence(fault) };
}
