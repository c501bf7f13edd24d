import { dayOrThrow } from '#core/calendar';
import { noMark } from '#core/posting';
import { bodyOfMark, type MarkBody, type SheetReply, type SheetRowReply } from '#contract/posting';
import type { BandBody } from '#contract/scales';

export const blankMark: MarkBody = bodyOfMark(noMark);

export const band = (label: string, lowest: string): BandBody => ({
  label,
  lowest,
  points: null,
  passes: true,
  earnsCredit: true,
  descriptor: '',
  isOff: false,
});

/** What a file brought. */
export const computedFrom = (percent: string) => ({
  percent,
  file: { fileName: 'a.csv', fileRow: 2, column: 'Total', acceptedAt: '', acceptedBy: '' },
});

/** A student for whom nothing is computed or posted, changed as the case says. */
export const sheetRow = (enrollmentId: number, more: Partial<SheetRowReply> = {}): SheetRowReply => ({
  enrollmentId,
  studentId: enrollmentId,
  student: `Student ${enrollmentId}`,
  studentNumber: `S${enrollmentId}`,
  enteredOn: dayOrThrow('2025-09-01'),
  withdrawnOn: null,
  computed: null,
  blockedBy: [],
  composite: null,
  givenNames: ['Student'],
  pronoun: 'they',
  computedThen: null,
  mark: blankMark,
  version: 0,
  postedBy: null,
  postedAt: null,
  scaleVersion: 1,
  attendance: null,
  ...more,
});

/** A sheet of Quarter 2 on a scale of two labels, changed as the case says. */
export const sheetOf = (rows: readonly SheetRowReply[], more: Partial<SheetReply> = {}): SheetReply => ({
  sectionId: 1,
  section: 'Shore Life 1',
  course: 'Shore Life',
  teacher: 'Nance, Harun',
  itemId: 1,
  itemName: 'Quarter grade',
  itemKind: 'period',
  highestPercent: '200',
  source: 'gradeBook',
  onTranscript: true,
  countsInGpa: true,
  failingNeedsLastDate: false,
  asksHours: false,
  commentRule: 'optional',
  commentBelow: null,
  commentLength: 100,
  period: { id: 4, name: 'Quarter 2', startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') },
  window: null,
  sealedAt: null,
  mayPost: true,
  allowsExempt: true,
  ruleEffects: {},
  onBehalfOf: null,
  signedOff: null,
  requests: [],
  stockComments: [],
  scaleName: 'Letter scale',
  scaleFrom: 'the school',
  scales: [{ version: 1, bands: [band('A', '90'), band('B', '0')] }],
  scaleVersion: 1,
  digits: 1,
  rounding: 'halfUp',
  codes: [],
  highestLevel: null,
  rows,
  receipts: [],
  ...more,
});
