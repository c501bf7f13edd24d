import type { CoveredCourseReply, ItemReply, ReportItemsReply } from '#contract/report-items';
import { newItem } from '../src/report-items/item-draft';

export const item = (id: number, name: string, more: Partial<ItemReply> = {}): ItemReply => ({
  ...newItem({ periods: [{ kind: 'quarter', names: [] }] } as unknown as ReportItemsReply),
  id,
  revision: 'r1',
  scaleName: null,
  labels: ['A', 'B'],
  descriptors: ['Excellent', 'Good'],
  postedGrades: 0,
  name,
  heading: name.slice(0, 14),
  ...more,
});
export const course = (id: number, covers: CoveredCourseReply['covers'], onTranscript = true): CoveredCourseReply => ({
  id,
  code: `C${id}`,
  title: `Course ${id}`,
  department: 'Sea',
  kind: 'academic',
  level: 'regular',
  length: 'year',
  credits: '1',
  onTranscript,
  scaleName: 'Letter scale',
  covers,
});
export const byRule = (itemId: number, reports = true) => ({ itemId, reports, kind: 'rule' as const, at: 0 });
/** The report items of a small school: a quarter grade, an exam and a semester grade made of them. */
export const reply: ReportItemsReply = {
  revision: 'r',
  items: [
    item(1, 'Quarter grade', { onTranscript: true }),
    item(2, 'Exam', { ordinals: [2, 4] }),
    item(3, 'Semester grade', {
      periodKind: 'semester',
      source: 'composite',
      parts: [
        { itemId: 1, ordinal: 1, weight: '40.00' },
        { itemId: 1, ordinal: 2, weight: '40.00' },
        { itemId: 2, ordinal: 2, weight: '20.00' },
      ],
    }),
  ],
  rules: [],
  exceptions: [],
  departments: ['Sea'],
  kinds: ['academic'],
  scales: [],
  categories: [],
  periods: [
    { kind: 'semester', names: ['Semester 1', 'Semester 2'] },
    { kind: 'quarter', names: ['Quarter 1', 'Quarter 2', 'Quarter 3', 'Quarter 4'] },
  ],
  courses: [
    course(11, [byRule(1), byRule(2), byRule(3)]),
    course(12, [byRule(1), { itemId: 2, reports: false, kind: 'exception', at: 0 }]),
    course(13, [byRule(2)]),
    course(14, [], false),
  ],
};
