import { exchangeFiles, type ExchangeFile } from '#core/exchange';
import { writeCategories } from './write-categories.js';
import { writeClasses } from './write-classes.js';
import { writeCourses } from './write-courses.js';
import { writeEnrollments } from './write-enrollments.js';
import { writeLineItems } from './write-line-items.js';
import { writePeople } from './write-people.js';
import { writeResults } from './write-results.js';
import { writeScales } from './write-scales.js';
import { writeSchools } from './write-schools.js';
import { writeSessions } from './write-sessions.js';
import type { Writing } from './writing.js';

/** How a stretch of each file's rows is written; what roles say is written with people, and kept beside. */
const writers: Readonly<Record<ExchangeFile, (writing: Writing) => Promise<void>>> = {
  orgs: writeSchools,
  academicSessions: writeSessions,
  users: writePeople,
  roles: async () => undefined,
  demographics: writePeople,
  courses: writeCourses,
  classes: writeClasses,
  enrollments: writeEnrollments,
  categories: writeCategories,
  lineItems: writeLineItems,
  results: writeResults,
  scoreScales: writeScales,
};

/** Files whose things another file of the zip may bring to one more school, though none of their own rows says anything new. */
const sharedFiles: readonly ExchangeFile[] = ['academicSessions', 'courses', 'categories'];

/** The files in the order in which they are written, each after those that it refers to. */
export const filesToWrite = exchangeFiles;

export function isWrittenAnyway(file: ExchangeFile): boolean {
  return sharedFiles.includes(file);
}

export function writeRowsOf(file: ExchangeFile, writing: Writing): Promise<void> {
  return writers[file](writing);
}
