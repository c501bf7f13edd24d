import type { BandBody, PlacementReply, ScaleEffectReply, ScaleReply, ScalesReply } from '#contract/scales';

export const bandOf = (label: string, lowest: string | null, over: Partial<BandBody> = {}): BandBody => ({
  label,
  lowest,
  points: null,
  passes: lowest !== '0.0',
  earnsCredit: lowest !== '0.0',
  descriptor: '',
  isOff: false,
  ...over,
});

const version = { number: 2, fromPeriod: 'Quarter 1', savedBy: 'Morwenna Lark', savedAt: '2025-11-03T09:00:00Z' };

/** Three bands; of the period's five percentages one lies a tenth below B, and one half a point below A. */
export const scaleOf = (over: Partial<ScaleReply> = {}): ScaleReply => ({
  id: 5,
  revision: 'r5',
  name: 'Letters',
  isDistrictWide: false,
  kind: 'percent',
  highestLevel: null,
  tie: null,
  followers: [],
  digits: 1,
  rounding: 'halfUp',
  version,
  latestVersion: 2,
  bands: [bandOf('A', '90.0', { points: '4.0' }), bandOf('B', '80.0', { points: '3.0' }), bandOf('F', '0.0')],
  versions: [version, { number: 1, fromPeriod: 'the first period', savedBy: null, savedAt: '2025-08-01T09:00:00Z' }],
  items: ['Quarter grade'],
  coursesUsingIt: 12,
  tallies: [
    { percent: '95', grades: 1 },
    { percent: '89.5', grades: 1 },
    { percent: '84', grades: 2 },
    { percent: '79.9', grades: 1 },
  ],
  ...over,
});

export const placementOf = (over: Partial<PlacementReply> = {}): PlacementReply => ({
  id: 1,
  kind: 'school',
  department: null,
  level: null,
  courseId: null,
  sectionId: null,
  place: 'Upper School',
  scaleId: 5,
  isLocked: false,
  fromPeriod: null,
  isBegun: true,
  ...over,
});

export const scalesReplyOf = (scales: readonly ScaleReply[], over: Partial<ScalesReply> = {}): ScalesReply => ({
  scales,
  placements: [placementOf()],
  laterPlacements: [],
  placeRevisions: { '["school",1,null,null,null,null]': 'r-school' },
  codes: ['INC'],
  departments: ['Craft', 'Sea'],
  sections: [{ id: 31, name: 'Knots · section 1' }],
  courses: [
    { id: 1, title: 'Knots', scaleId: 5, placementId: 1, overruled: 0 },
    { id: 2, title: 'Shore Life', scaleId: 5, placementId: 1, overruled: 2 },
  ],
  ...over,
});

/** One grade of four would go up from B to A. */
export const effectOf = (over: Partial<ScaleEffectReply> = {}): ScaleEffectReply => ({
  grades: 5,
  milliseconds: 3,
  bands: scaleOf().bands,
  moves: [
    { from: 'B', to: 'A', grades: 1 },
    { from: 'B', to: 'B', grades: 2 },
  ],
  changed: 1,
  passAnew: 0,
  failAnew: 0,
  meanBefore: '3.125',
  meanAfter: '3.250',
  students: [
    {
      studentId: 9,
      student: 'Fennick, Ada',
      studentNumber: '100009',
      changes: [{ item: 'Quarter grade', section: 'Knots · section 1', percent: '89.5', from: 'B', to: 'A' }],
      gpaBefore: '3.000',
      gpaAfter: '3.500',
    },
  ],
  ...over,
});
