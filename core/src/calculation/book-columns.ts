/** Grade books in memory: one entry for each score, each assignment and each student. */
export interface BookColumns {
  /** Where each student's scores begin, in the order of their due dates; one entry more than there are students. */
  readonly starts: Int32Array;
  /** By score: the position of its assignment. */
  readonly assignment: Int32Array;
  /** By score: hundredths of points from 0, -1 for none. */
  readonly points: Int32Array;
  /** By score: the number of its flag, 0 for none. */
  readonly flag: Uint8Array;
  /** By assignment: hundredths of points, 0 or more. */
  readonly possible: Int32Array;
  /** By assignment: whether it is extra and whether it is not counted. */
  readonly bits: Uint8Array;
  /** By assignment: the position of its category in the policy of its section, or `noSlot`. */
  readonly slot: Uint8Array;
}
