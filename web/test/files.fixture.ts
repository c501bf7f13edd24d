import { noOutcomes } from '#core/files';
import type { FileImportReply, FilePlanReply, FileRowReply } from '#contract/files';

export const planOf = (counts: Partial<FilePlanReply['counts']> = {}, over: Partial<FilePlanReply> = {}) => ({
  number: 3,
  counts: { ...noOutcomes(), ...counts },
  notInFile: { count: 0, names: [] },
  unknownSections: [],
  ...over,
});

/** A file of one section with ten new percentages, planned and waiting to be accepted. */
export const fileOf = (over: Partial<FileImportReply> = {}): FileImportReply => ({
  id: 9,
  fileName: 'winter.csv',
  byteSize: 812,
  encoding: 'UTF-8',
  status: 'planned',
  stepsDone: 0,
  stepCount: 0,
  readBy: 'Morwenna Lark',
  readAt: '2026-01-21T09:00:00Z',
  acceptedAt: null,
  periodName: 'Quarter 2',
  items: [{ id: 1, name: 'Quarter grade' }],
  header: ['Student no', 'Name', 'Total'],
  headerRow: 1,
  leadingRows: [
    ['Student no', 'Name', 'Total'],
    ['100002', 'Fennick, Ada', '86.4'],
    ['100003', 'Harrow, Col', '71'],
  ],
  sheets: [],
  sheet: null,
  asksSheet: false,
  sampleRows: [
    ['100002', 'Fennick, Ada', '86.4'],
    ['100003', 'Harrow, Col', '71'],
  ],
  dataRows: 2,
  idColumn: 0,
  sectionId: 31,
  sectionColumn: null,
  grades: [{ column: 2, itemId: 1 }],
  namedSections: {},
  proposals: {
    id: { column: 0, confidence: 100, reason: { code: 'ids-known', known: 2, rows: 2 } },
    sectionColumn: null,
    section: { sectionId: 31, confidence: 100, known: 2 },
    grades: [
      {
        itemId: 1,
        proposal: {
          column: 2,
          confidence: 90,
          reason: { code: 'name-and-percents', word: 'total', percents: 2, rows: 2 },
        },
      },
    ],
    doubts: [],
  },
  plan: planOf({ new: 10 }),
  problem: null,
  ...over,
});

export const fileRowOf = (over: Partial<FileRowReply> = {}): FileRowReply => ({
  row: 2,
  itemId: 1,
  outcome: 'new',
  givenId: '100002',
  givenSection: null,
  value: '86.4',
  name: 'Fennick, Ada',
  section: null,
  before: null,
  after: '86.4',
  sameAs: [],
  remarks: [],
  ...over,
});
