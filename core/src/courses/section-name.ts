/**
 * What a section is called: its course and its number. After a title that ends in a figure the number would read as part of it,
 * so the word stands between them.
 * @example sectionName('Boatbuilding', 2) // 'Boatbuilding 2'
 * @example sectionName('Making, year 1', 2) // 'Making, year 1 · section 2'
 */
export function sectionName(courseTitle: string, number: number): string {
  return /\d$/.test(courseTitle) ? `${courseTitle} · section ${number}` : `${courseTitle} ${number}`;
}
