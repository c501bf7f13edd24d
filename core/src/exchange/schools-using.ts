import { listOf } from './check-rows.js';
import { climbOf } from './climb.js';
import { extension, type ExchangeRow, type ExchangeRows } from './exchange-format.js';

/** Ids of the schools that have something, by its id. */
type Schools = ReadonlyMap<string, ReadonlySet<string>>;

export interface SchoolsUsing {
  readonly academicSessions: Schools;
  readonly courses: Schools;
  readonly categories: Schools;
}

/**
 * Which schools have which sessions, courses and categories: in the format all three may be several schools' or the whole
 * district's, while here each school has its own. A school has what its classes and their line items name, what is said to
 * be its own, and the sessions above and below those that it uses. A session or category that nobody uses is every school's;
 * a course of the district that nobody teaches is nobody's.
 */
export function schoolsUsing(rows: ExchangeRows): SchoolsUsing {
  const orgs = rows.orgs ?? [];
  const schools = new Set(orgs.filter(({ type }) => type === 'school').map(({ sourcedId }) => sourcedId!));
  const schoolOf = schoolOfOrg(orgs);
  const sessionsOf = new Map<string, Set<string>>();
  const courses = new Map<string, Set<string>>();
  const categories = new Map<string, Set<string>>();
  const schoolOfClass = new Map<string, string>();
  for (const row of rows.classes ?? []) {
    const school = row['schoolSourcedId'] ?? '';
    if (!schools.has(school)) continue;
    schoolOfClass.set(row['sourcedId']!, school);
    addTo(courses, row['courseSourcedId'], school);
    for (const term of listOf(row['termSourcedIds'] ?? '')) addTo(sessionsOf, term, school);
  }
  for (const row of rows.lineItems ?? []) {
    const school = schoolOfClass.get(row['classSourcedId'] ?? '');
    if (school === undefined) continue;
    addTo(sessionsOf, row['gradingPeriodSourcedId'] || row['academicSessionSourcedId'], school);
    addTo(categories, row['categorySourcedId'], school);
  }
  for (const row of rows.courses ?? []) {
    addTo(courses, row['sourcedId'], schoolOf(row['orgSourcedId'] ?? ''));
    for (const school of statedSchools(row, schools)) addTo(courses, row['sourcedId'], school);
  }
  for (const row of rows.categories ?? []) {
    const stated = statedSchools(row, schools);
    const id = row['sourcedId']!;
    if (stated.length === 0 && !categories.has(id)) categories.set(id, new Set(schools));
    for (const school of stated) addTo(categories, id, school);
  }
  return { academicSessions: schoolsOfSessions(rows.academicSessions ?? [], sessionsOf, schools), courses, categories };
}

/** The school that an organisation is, or lies in, as a department does; undefined for the district. */
export function schoolOfOrg(orgs: readonly ExchangeRow[]): (org: string) => string | undefined {
  const schools = new Set(orgs.filter(({ type }) => type === 'school').map(({ sourcedId }) => sourcedId!));
  const climb = climbOf(orgs);
  return (org) => climb(org).find((id) => schools.has(id));
}

/** The schools that one of our own zips names for a row. */
export function statedSchools(row: ExchangeRow, schools: ReadonlySet<string>): string[] {
  return listOf(row[extension('school')] ?? '').filter((school) => schools.has(school));
}

/**
 * A school has the sessions that it uses, and those above them; and all below one that it uses, unless it has some of its own
 * there, as a school of trimesters has in a year whose quarters are another's.
 */
function schoolsOfSessions(sessions: readonly ExchangeRow[], direct: Schools, schools: ReadonlySet<string>): Schools {
  const climb = climbOf(sessions);
  const own = new Map<string, Set<string>>();
  const withOwnBelow = new Map<string, Set<string>>();
  for (const row of sessions) {
    const [id, ...above] = climb(row['sourcedId']!);
    for (const school of statedSchools(row, schools)) {
      addTo(own, id, school);
      for (const each of above) addTo(withOwnBelow, each, school);
    }
  }
  for (const [session, using] of direct)
    for (const id of climb(session)) for (const school of using) addTo(own, id, school);
  for (const row of sessions) {
    const [id, ...above] = climb(row['sourcedId']!);
    for (const each of above)
      for (const school of direct.get(each) ?? []) if (!withOwnBelow.get(each)?.has(school)) addTo(own, id, school);
    if (!own.has(id!)) own.set(id!, new Set(schools));
  }
  return own;
}

function addTo(sets: Map<string, Set<string>>, id: string | undefined, school: string | undefined): void {
  if (!id || school === undefined) return;
  sets.set(id, (sets.get(id) ?? new Set()).add(school));
}
