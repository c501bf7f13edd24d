import { Injectable } from '@nestjs/common';
import { checkItem } from '#core/report-items';
import { itemFaultSentence, itemOfBody, type ItemRulesBody, type ItemBody } from '#contract/report-items';
import { CoursesRepository } from '#server/courses';
import { Refusal, type FieldFault, type Queries } from '#server/platform';
import { usesInWords } from '#contract/messages';
import { LabelsRepository } from './labels.repository.js';
import { ReportItemsRepository } from './report-items.repository.js';

/** Refuses items, rules and exceptions that would not hold. */
@Injectable()
export class ItemChecks {
  constructor(
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly labels: LabelsRepository,
  ) {}

  /** What would not hold together; the parts of a composite are named by their fields. */
  async refuseFaulty(queries: Queries, schoolId: number, id: number | null, body: ItemBody): Promise<void> {
    const others = (await this.items.ofSchool(queries, schoolId)).filter((item) => item.id !== id);
    const fields: FieldFault[] = [];
    const isSame = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
    if (others.some(({ name }) => isSame(name, body.name))) {
      fields.push({ field: 'name', detail: 'a name that no other item of the school has' });
    }
    const scales = await this.labels.scalesOf(queries, schoolId);
    const scale = scales.find((each) => each.id === body.scaleId);
    if (body.scaleId !== null && !scale) fields.push({ field: 'scaleId', detail: 'a scale of this school' });
    const categories = await this.items.categoriesOf(queries, schoolId);
    if (body.categoryId !== null && !categories.some((each) => each.id === body.categoryId)) {
      fields.push({ field: 'categoryId', detail: 'a category of this school, or null for the whole grade book' });
    }
    if (body.commentRule === 'requiredBelow' && scale && !scale.labels.includes(body.commentBelow ?? '')) {
      fields.push({ field: 'commentBelow', detail: `a label of ${scale.name}` });
    }
    if (fields.length > 0) throw new Refusal('fields-wrong', {}, fields);
    const item = itemOfBody(body, { id: id ?? 0, schoolId, position: 0 });
    const faults = checkItem([...others, item], item);
    const [first] = faults;
    if (!first) return;
    const details = faults.map((fault) => ({ field: 'parts', detail: itemFaultSentence(fault) }));
    throw new Refusal('item-faulty', { reason: itemFaultSentence(first) }, details);
  }

  /** An item that something hangs on stays. @throws Refusal in-use */
  async refuseUsed(queries: Queries, id: number): Promise<void> {
    const { name } = await this.items.byIdOrThrow(queries, id);
    const uses = usesInWords(await this.items.usesOf(queries, id));
    const instead = 'Let its rules omit every course instead: what is posted is kept and no sheet asks for more.';
    if (uses) throw new Refusal('in-use', { what: 'The item', name, uses, instead });
  }

  /** Rules and exceptions name only what the school has. @throws Refusal fields-wrong */
  async refuseUnknown(queries: Queries, schoolId: number, { rules, exceptions }: ItemRulesBody): Promise<void> {
    const courses = await this.courses.ofSchool(queries, schoolId);
    const items = new Set((await this.items.ofSchool(queries, schoolId)).map(({ id }) => id));
    const ids = new Set(courses.map(({ id }) => id));
    const fields: FieldFault[] = [];
    rules.forEach(({ itemId, department, kind }, index) => {
      if (!items.has(itemId)) fields.push({ field: `rules.${index}.itemId`, detail: 'an item of this school' });
      if (department !== null && !courses.some((course) => course.department === department)) {
        fields.push({ field: `rules.${index}.department`, detail: 'a department of this school' });
      }
      if (kind !== null && !courses.some((course) => course.kind === kind)) {
        fields.push({ field: `rules.${index}.kind`, detail: 'a kind of course of this school' });
      }
    });
    exceptions.forEach(({ itemId, courseId }, index) => {
      if (!items.has(itemId)) fields.push({ field: `exceptions.${index}.itemId`, detail: 'an item of this school' });
      if (!ids.has(courseId)) fields.push({ field: `exceptions.${index}.courseId`, detail: 'a course of this school' });
      const first = exceptions.findIndex((each) => each.itemId === itemId && each.courseId === courseId);
      if (first < index)
        fields.push({ field: `exceptions.${index}`, detail: 'one exception for a course and an item' });
    });
    if (fields.length > 0) throw new Refusal('fields-wrong', {}, fields);
  }
}
