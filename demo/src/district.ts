import type { tables } from '#server/platform';
import type { DemoAccount } from './demo-accounts.js';

type Row<Table extends { $inferInsert: object }> = Omit<Table['$inferInsert'], 'createdAt'>;

/** All rows of the demo, table by table, with their numbers already given. */
export interface District {
  readonly schools: Row<typeof tables.schools>[];
  readonly periods: Row<typeof tables.periods>[];
  readonly breaks: Row<typeof tables.breaks>[];
  readonly people: Row<typeof tables.people>[];
  /** Who can sign in. */
  readonly accounts: (DemoAccount & { readonly personId: number })[];
  readonly scales: Row<typeof tables.scales>[];
  readonly scaleVersions: Row<typeof tables.scaleVersions>[];
  readonly bands: Row<typeof tables.bands>[];
  readonly specialCodes: Row<typeof tables.specialCodes>[];
  readonly reportItems: Row<typeof tables.reportItems>[];
  readonly reportItemParts: Row<typeof tables.reportItemParts>[];
  readonly reportItemExceptions: Row<typeof tables.reportItemExceptions>[];
  readonly scalePlacements: Row<typeof tables.scalePlacements>[];
  readonly courseDefaults: Row<typeof tables.courseDefaults>[];
  readonly reportItemRules: Row<typeof tables.reportItemRules>[];
  readonly postingWindows: Row<typeof tables.postingWindows>[];
  readonly categories: Row<typeof tables.categories>[];
  readonly calculationPolicies: Row<typeof tables.calculationPolicies>[];
  readonly courses: (Row<typeof tables.courses> & { id: number })[];
  readonly sections: SectionRow[];
  readonly enrollments: EnrollmentRow[];
  assignments: (Row<typeof tables.assignments> & { id: number })[];
  scores: Row<typeof tables.scores>[];
  readonly calculatedGrades: (Row<typeof tables.calculatedGrades> & { percent: string | null })[];
  readonly fileImports: Row<typeof tables.fileImports>[];
  readonly fileColumns: Row<typeof tables.fileColumns>[];
  /** Bytes as PostgreSQL writes them: \\x and two signs for each. */
  readonly filePieces: { importId: number; piece: number; bytes: string }[];
  readonly fileRowOutcomes: Row<typeof tables.fileRowOutcomes>[];
  readonly computedGrades: ComputedRow[];
  readonly grades: GradeRow[];
  readonly signOffs: Row<typeof tables.signOffs>[];
  readonly stockComments: Row<typeof tables.stockComments>[];
  readonly registers: Row<typeof tables.registers>[];
  readonly absences: Row<typeof tables.absences>[];
}

export interface SectionRow {
  readonly id: number;
  readonly courseId: number;
  readonly number: number;
  readonly teacherId: number;
  readonly periodId: number;
  readonly seats: number | null;
}

export interface EnrollmentRow {
  readonly id: number;
  readonly sectionId: number;
  readonly studentId: number;
  readonly enteredOn: string;
  withdrawnOn: string | null;
}

export interface ComputedRow {
  readonly itemId: number;
  readonly periodId: number;
  readonly enrollmentId: number;
  readonly percent: string;
  readonly importId: number;
  readonly importRow: number;
}

export interface GradeRow {
  readonly itemId: number;
  readonly periodId: number;
  readonly enrollmentId: number;
  percent: string | null;
  label: string | null;
  code: string | null;
  lastDate: string | null;
  hours: string | null;
  comment: string;
  computedThen: string | null;
  isOverride: boolean;
  overrideReason: string;
  readonly scaleVersionId: number;
  readonly postedBy: number;
  postedAt: string;
}

export function emptyDistrict(): District {
  return {
    accounts: [],
    schools: [],
    periods: [],
    breaks: [],
    people: [],
    scales: [],
    scaleVersions: [],
    bands: [],
    specialCodes: [],
    reportItems: [],
    reportItemParts: [],
    reportItemExceptions: [],
    scalePlacements: [],
    courseDefaults: [],
    reportItemRules: [],
    postingWindows: [],
    categories: [],
    calculationPolicies: [],
    courses: [],
    sections: [],
    enrollments: [],
    assignments: [],
    scores: [],
    calculatedGrades: [],
    fileImports: [],
    fileColumns: [],
    filePieces: [],
    fileRowOutcomes: [],
    computedGrades: [],
    grades: [],
    signOffs: [],
    stockComments: [],
    registers: [],
    absences: [],
  };
}
