import type { OwnSection } from '#core/sections';
import { usesInWords } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { countUses, Refusal, type PlaceOf, type Queries } from '#server/platform';
import { OwnSectionsRepository, sectionUses } from './own-sections.repository.js';

export function valueOfSection(section: OwnSection): OwnSection {
  const { courseId, number, teacherId, coTeacherIds, periodId, startsOn, endsOn, seats } = section;
  return { courseId, number, teacherId, coTeacherIds, periodId, startsOn, endsOn, seats };
}

/** Sections, by their numbers in the database. One on which something hangs is not removed. */
@ThingOf({ kind: 'section', called: 'the section', change: 'change-set-up', see: 'read-set-up' })
export class SectionThing implements Thing<OwnSection> {
  constructor(private readonly sections: OwnSectionsRepository) {}

  within({ courseId }: OwnSection): [PlaceOf] {
    return [{ kind: 'course', id: courseId }];
  }

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = await this.sections.byIds(queries, ids.map(Number));
    return new Map(found.map(({ id, name }) => [String(id), name]));
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, OwnSection>> {
    const found = await this.sections.byIds(queries, ids.map(Number));
    return new Map(found.map((section) => [String(section.id), valueOfSection(section)]));
  }

  /**
   * Where grades are posted, the course and the period stay: what is expected of the grades rests on them.
   * @throws Refusal in-use, section-graded, section-number-taken, section-strange
   */
  async check(queries: Queries, values: ReadonlyMap<string, OwnSection | null>): Promise<void> {
    const before = await this.sections.byIds(queries, [...values.keys()].map(Number));
    const removed = before.filter(({ id }) => values.get(String(id)) === null);
    const uses = await countUses(
      queries,
      sectionUses,
      removed.map(({ id }) => id),
    );
    for (const { id, name } of removed)
      if (uses.has(id))
        throw new Refusal('in-use', {
          what: 'The section',
          name,
          uses: usesInWords({ counts: uses.get(id)! }),
          instead: 'Take that out of it first.',
        });
    const moved = before.filter(({ id, courseId, periodId }) => {
      const after = values.get(String(id));
      return after && (after.courseId !== courseId || after.periodId !== periodId);
    });
    const graded = await this.sections.withGrades(
      queries,
      moved.map(({ id }) => id),
    );
    const kept = moved.find(({ id }) => graded.has(id));
    if (kept) throw new Refusal('section-graded', { name: kept.name });
    const after = [...values.values()].filter((value) => value !== null);
    const twice = await this.sections.takenBeside(queries, after, [...values.keys()].map(Number));
    if (twice) throw new Refusal('section-number-taken', { number: twice.number, name: twice.course });
    if (!(await this.sections.fitTogether(queries, after))) throw new Refusal('section-strange');
  }

  async write(queries: Queries, values: ReadonlyMap<string, OwnSection | null>): Promise<void> {
    const all = [...values].map(([id, value]) => [Number(id), value] as const);
    await this.sections.remove(
      queries,
      all.flatMap(([id, value]) => (value ? [] : [id])),
    );
    await this.sections.put(
      queries,
      all.flatMap(([id, value]) => (value ? [{ ...value, id }] : [])),
    );
  }
}
