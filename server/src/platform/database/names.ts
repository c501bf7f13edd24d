import { sql, type SQL } from 'drizzle-orm';
import { courses, sections } from './tables/courses.js';
import { people } from './tables/people.js';

/* How people and sections are called, for every query: nobody else writes these names. */

/** A person as `listedName` of core calls them: "Carrow, Hale “Hal”". */
export const personName = sql<string>`${people.familyName} || ', ' || ${people.givenName} || coalesce(' “' || ${people.preferredName} || '”', '')`;

/** The same for a query written by hand, where `people` goes by another name. */
export function personNameOf(alias: string): SQL<string> {
  const preferred = `coalesce(' “' || ${alias}.preferred_name || '”', '')`;
  return sql.raw(`${alias}.family_name || ', ' || ${alias}.given_name || ${preferred}`) as SQL<string>;
}

/** A person in a sentence: "Hale Carrow". */
export const spokenName = sql<string>`${people.givenName} || ' ' || ${people.familyName}`;

/** The same for a query written by hand, where `people` goes by another name. */
export function spokenNameOf(alias: string): SQL<string> {
  return sql.raw(`${alias}.given_name || ' ' || ${alias}.family_name`) as SQL<string>;
}

/** The number that people know a student by; where there is none, the id of the roster that brought them, else nothing. */
export const studentNumber = sql<string>`coalesce(${people.number}, CASE WHEN ${people.isMadeHere} THEN '' ELSE ${people.sourcedId} END)`;

/** The same for a query written by hand, where `people` goes by another name. */
export function studentNumberOf(alias: string): SQL<string> {
  const ofRoster = `CASE WHEN ${alias}.is_made_here THEN '' ELSE ${alias}.sourced_id END`;
  return sql.raw(`coalesce(${alias}.number, ${ofRoster})`) as SQL<string>;
}

/** The order in which lists have people. */
export function nameOrderOf(alias: string): SQL {
  return sql.raw(`${alias}.family_name, ${alias}.given_name`);
}

/** A section, as `sectionName` of core calls it. */
export const sectionName = sql<string>`(${courses.title} || CASE WHEN ${courses.title} ~ '[0-9]$' THEN ' · section ' ELSE ' ' END || ${sections.number})`;

/** The same for a query written by hand, by the names that courses and sections go by there. */
export function sectionNameOf(course: string, section: string): SQL<string> {
  const between = `CASE WHEN ${course}.title ~ '[0-9]$' THEN ' · section ' ELSE ' ' END`;
  return sql.raw(`(${course}.title || ${between} || ${section}.number)`) as SQL<string>;
}
