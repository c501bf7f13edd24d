/** What a register notes of a student; whoever is not in it was present. */
export const absenceKinds = ['absent', 'excused', 'late'] as const;
export type AbsenceKind = (typeof absenceKinds)[number];
export type AttendanceMark = 'present' | AbsenceKind;

/** What stands in a cell of a register. */
export const attendanceLetters: Readonly<Record<AttendanceMark, string>> = {
  present: 'P',
  absent: 'A',
  excused: 'E',
  late: 'L',
};

/** Other words of files, as they begin. */
const words: readonly (readonly [mark: AttendanceMark, beginnings: readonly string[]])[] = [
  ['present', ['present', 'here', 'attended', 'yes', '/']],
  ['absent', ['absent', 'unexcused', 'no', 'missing']],
  ['excused', ['excused', 'authorised', 'authorized']],
  ['late', ['late', 'tardy']],
];

/**
 * Reads an entry of a register: a letter, or a word or its first letters in any case; nothing is present. Undefined where it
 * could mean none of them, or several.
 * @example readAttendance('abs') // 'absent'
 */
export function readAttendance(text: string): AttendanceMark | undefined {
  const typed = text.trim().toLowerCase();
  if (typed === '') return 'present';
  const letter = (Object.keys(attendanceLetters) as AttendanceMark[]).find(
    (mark) => attendanceLetters[mark].toLowerCase() === typed,
  );
  if (letter) return letter;
  const found = words.filter(([, beginnings]) => beginnings.some((word) => word.startsWith(typed)));
  return found.length === 1 ? found[0]![0] : undefined;
}

/** Whether a student came that day. */
export function isPresent(mark: AttendanceMark): boolean {
  return mark === 'present' || mark === 'late';
}
