import { partsOfName } from './person-name.js';

/** The given name of a listed name, and the one that the student goes by where it is another. */
export function givenNamesOf(student: string): string[] {
  const { given, preferred } = partsOfName(student);
  return preferred === null ? [given] : [given, preferred];
}
