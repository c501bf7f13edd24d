/** Points count in hundredths, credits in ten-thousandths, percents in hundredths: whole numbers, so that sums are exact. */
export const hundredths = 100;
export const tenThousandths = 10_000;

/**
 * The grades of a period as columns, one entry for each grade, as the preview reads them: 140,000 rows are a few
 * megabytes, and handing them to a worker costs nothing.
 */
export interface GradeColumns {
  /** A student's place in a list kept elsewhere. */
  readonly student: Int32Array;
  /** In hundredths, rounded as the item says; -1 where there is none. */
  readonly percent: Int32Array;
  /** Place of the posted label in `labels`; -1 where none is posted, as for what is only computed. */
  readonly label: Int16Array;
  /** Grade points that a code stands for, in hundredths, whatever the scale; -1 where no code is posted. */
  readonly codePoints: Int16Array;
  /** Place of the change in the list of changes: under which bands the grade is looked at now, and under which then. */
  readonly change: Uint16Array;
  /** In ten-thousandths; the part of the course's credits that this grade carries. */
  readonly credits: Int32Array;
  /** Grade points added for the course's level, in hundredths. */
  readonly addition: Int32Array;
  /** 1 where the grade counts in the GPA. */
  readonly counts: Uint8Array;
  /** The number of the course, and of the section that makes it an attempt of its own. */
  readonly course: Int32Array;
  readonly attempt: Int32Array;
  readonly labels: readonly string[];
}

/** Empty columns for a number of grades. */
export function gradeColumns(length: number, labels: readonly string[]): GradeColumns {
  return {
    student: new Int32Array(length),
    percent: new Int32Array(length),
    label: new Int16Array(length),
    codePoints: new Int16Array(length).fill(-1),
    change: new Uint16Array(length),
    credits: new Int32Array(length),
    addition: new Int32Array(length),
    counts: new Uint8Array(length),
    course: new Int32Array(length),
    attempt: new Int32Array(length),
    labels,
  };
}
