import { Injectable } from '@nestjs/common';
import { placeKey, placementsInForce, scaleInForce, type ScalePlace, type ScalePlacement } from '#core/scales';
import { placeOf, type PlaceScaleRequest, type ScalesReply } from '#contract/scales';
import { CoursesRepository } from '#server/courses';
import { PlacementsRepository, placeName, ScalePlacing, seekerOf } from '#server/placements';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { ScaleReplies } from './scale-replies.service.js';
import { ScalesRepository } from './scales.repository.js';

/** Puts scales in force, and lets places inherit again. */
@Injectable()
export class PlacementsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly placements: PlacementsRepository,
    private readonly scales: ScalesRepository,
    private readonly courses: CoursesRepository,
    private readonly periods: PeriodsRepository,
    private readonly replies: ScaleReplies,
    private readonly placing: ScalePlacing,
    private readonly changes: Changes,
  ) {}

  /** From a period on; what held before it stays for the periods before. Sealed periods keep what they have. */
  async place(actor: Actor, schoolId: number, request: PlaceScaleRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const place = placeOf(schoolId, request);
      const period = await this.periods.byIdOrThrow(queries, request.fromPeriodId);
      await this.periods.refuseSealedFrom(queries, period, place.schoolId);
      const placements = await this.placements.ofSchool(queries, schoolId);
      await this.refuseUnknown(queries, schoolId, place, request.scaleId);
      const inForce = placementsInForce(placements, period);
      const { scaleId } = request;
      if (scaleId !== null) await this.refuseLocked(queries, inForce, place, scaleId);
      const placed = { scaleId, isLocked: scaleId !== null && request.isLocked, fromPeriodId: period.id };
      const name = placeName(place);
      await this.changes.make(queries, actor, {
        action: scaleId === null ? `let ${name} inherit its scale` : `use another scale for ${name}`,
        edits: [
          { ...(await this.placing.editOf(queries, place, placed)), expected: request.revision ?? revisionOf(null) },
        ],
      });
      return this.replies.read(queries, period.id);
    });
  }

  private async refuseUnknown(
    queries: Queries,
    schoolId: number,
    place: ScalePlace,
    scaleId: number | null,
  ): Promise<void> {
    const fields: FieldFault[] = [];
    const courses = await this.courses.ofSchool(queries, schoolId);
    const sections = await this.placements.sectionNames(queries, schoolId);
    const { kind, department, level, courseId, sectionId } = place;
    if (kind === 'department' && !courses.some((course) => course.department === department)) {
      fields.push({ field: 'department', detail: 'a department of this school' });
    }
    if (kind === 'level' && level === null) fields.push({ field: 'level', detail: 'a level of course' });
    if (kind === 'course' && !courses.some(({ id }) => id === courseId)) {
      fields.push({ field: 'courseId', detail: 'a course of this school' });
    }
    if (kind === 'section' && !sections.has(sectionId ?? 0)) {
      fields.push({ field: 'sectionId', detail: 'a section of this school' });
    }
    const scales = await this.scales.ofSchool(queries, schoolId);
    const scale = scales.find(({ id }) => id === scaleId);
    if (scaleId !== null && !scale) fields.push({ field: 'scaleId', detail: 'a scale of this school' });
    if (kind === 'system' && scale && scale.schoolId !== null) {
      fields.push({ field: 'scaleId', detail: 'a scale of the whole district, as other schools would use it too' });
    }
    if (fields.length > 0) throw new Refusal('fields-wrong', {}, fields);
  }

  /** A scale put in force under a lock would never count. */
  private async refuseLocked(
    queries: Queries,
    placements: readonly ScalePlacement[],
    place: ScalePlace,
    scaleId: number,
  ): Promise<void> {
    const tried = { ...place, id: -1, scaleId, isLocked: false };
    const others = placements.filter((placement) => placeKey(placement) !== placeKey(place));
    const courses = await this.courses.ofSchool(queries, place.schoolId ?? 0);
    const sectionCourses = await this.placements.coursesOfSections(queries, place.schoolId ?? 0);
    const courseId = place.courseId ?? sectionCourses.get(place.sectionId ?? 0);
    const concerned = courses.filter(
      (course) =>
        (courseId === undefined || course.id === courseId) &&
        (place.department === null || course.department === place.department) &&
        (place.level === null || course.level === place.level),
    );
    for (const course of concerned) {
      const seeker = { ...seekerOf(course), sectionId: place.sectionId };
      const found = scaleInForce([...others, tried], seeker);
      if (!found?.overruled.includes(tried)) continue;
      const names = await this.placements.scaleNames(queries);
      const { placement } = found;
      throw new Refusal('scale-locked', { place: placeName(placement), scale: names.get(placement.scaleId)! });
    }
  }
}
