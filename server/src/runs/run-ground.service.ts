import { Injectable } from '@nestjs/common';
import { entryRulesFor } from '#core/posting';
import type { BookItem } from '#core/report-items';
import type { Joined, OurClass, OurItem } from '#core/runs';
import { BookSectionsRepository } from '#server/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PlatformsRepository, type KeptPlatform } from '#server/platforms';
import type { Queries } from '#server/platform';
import { SheetContextService, sheetId, SignOffsRepository } from '#server/posting';
import { PeriodViews } from '#server/period-view';
import { PlatformJoinsRepository, type PlatformNames } from './platform-joins.repository.js';
import { SectionBooksRepository } from './section-books.repository.js';

type ItemOfSection = Omit<OurItem, 'marks' | 'isSignedOff'> & {
  readonly item: BookItem;
  readonly scaleVersionId: number | null;
};

/** What is the same for all classes of a run, read once for a stage. */
export interface RunGround extends PlatformNames {
  readonly platform: KeptPlatform;
  readonly period: SchoolPeriod;
  readonly people: OurClass['people'];
  /** Names of the sections that run through the period. */
  readonly sections: ReadonlyMap<number, string>;
  /** What each section reports in the period. */
  readonly items: ReadonlyMap<number, readonly ItemOfSection[]>;
}

export interface GroundClass {
  readonly id: number;
  readonly key: string;
  readonly title: string;
  readonly decision: Joined<number>['decision'];
  readonly sectionId: number | null;
  readonly sectionName: string | null;
}

/** Reads what a run stands on: what is joined to what, and what is here. */
@Injectable()
export class RunGroundService {
  constructor(
    private readonly signOffs: SignOffsRepository,
    private readonly platforms: PlatformsRepository,
    private readonly periods: PeriodsRepository,
    private readonly bookSections: BookSectionsRepository,
    private readonly views: PeriodViews,
    private readonly sheets: SheetContextService,
    private readonly books: SectionBooksRepository,
    private readonly joins: PlatformJoinsRepository,
  ) {}

  async of(queries: Queries, platformId: number, periodId: number): Promise<RunGround> {
    const platform = await this.platforms.byIdOrThrow(queries, platformId);
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const sections = await this.bookSections.inPeriod(queries, period);
    return {
      platform,
      period,
      sections: new Map(sections.map(({ id, name }) => [id, name])),
      items: await this.items(queries, period),
      people: await this.joins.people(queries, platformId),
      ...(await this.joins.names(queries, platformId)),
    };
  }

  /** What is here for one class, as it is at this moment. */
  async ofClass(queries: Queries, ground: RunGround, theirs: GroundClass): Promise<OurClass> {
    const { platform, period, people, letters } = ground;
    const { sectionId } = theirs;
    const runs = sectionId !== null && ground.sections.has(sectionId);
    const names = ground.names.get(theirs.id);
    const isSealed = (await this.periods.sealedAt(queries, period.id)) !== null;
    return {
      decision: theirs.decision,
      section: runs ? await this.section(queries, ground, theirs.id, sectionId) : null,
      sectionName: theirs.sectionName,
      period: { name: period.name, startsOn: period.startsOn, endsOn: period.endsOn, isSealed },
      people,
      letters,
      groups: names?.groups ?? new Map(),
      totals: names?.totals ?? new Map(),
      defaultCategoryId: platform.defaultCategoryId,
    };
  }

  private async section(queries: Queries, { platform, period, items }: RunGround, classId: number, sectionId: number) {
    const book = await this.books.book(queries, platform.id, classId, sectionId, period);
    const own: [number, OurItem][] = [];
    const signedOff = await this.signOffs.ofSections(queries, period.id, [sectionId]);
    for (const { item, ...reported } of items.get(sectionId) ?? []) {
      const isSignedOff = signedOff.has(sheetId({ sectionId, itemId: item.id, periodId: period.id }));
      const marks = await this.books.marks(queries, item, sectionId, period);
      own.push([item.id, { ...reported, isSignedOff, marks }]);
    }
    return { ...book, items: new Map(own) };
  }

  private async items(queries: Queries, period: SchoolPeriod): Promise<ReadonlyMap<number, ItemOfSection[]>> {
    const view = await this.views.of(queries, period);
    const codes = [...view.codes.values()];
    const bySection = new Map<number, ItemOfSection[]>();
    for (const reported of view.reported) {
      const { item, sections, scales } = reported;
      const state = this.sheets.windowOf(reported)?.state;
      for (const { id } of sections) {
        const scale = scales.get(id)?.version;
        const own: ItemOfSection = {
          item,
          id: item.id,
          name: item.name,
          takesMarks: state === 'open' || state === 'grace',
          scale: scale ? entryRulesFor(scale, item, codes) : null,
          scaleVersionId: scale?.id ?? null,
        };
        bySection.set(id, [...(bySection.get(id) ?? []), own]);
      }
    }
    return bySection;
  }
}
