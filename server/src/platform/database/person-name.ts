import { sql } from 'drizzle-orm';
import { people } from './tables/people.js';

/** A person as lists have them: "Carrow, Hale". */
export const personName = sql<string>`${people.familyName} || ', ' || ${people.givenName}`;
