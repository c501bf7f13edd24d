/** What a practice learning platform holds. Ids are the platform's own. */
export interface PlatformContent {
  readonly classes: readonly PlatformClass[];
  readonly people: readonly PlatformPerson[];
  /** Who is in which class. */
  readonly members: readonly { readonly classId: string; readonly personId: string }[];
  readonly groups: readonly PlatformGroup[];
  readonly lineItems: readonly PlatformLineItem[];
  readonly results: readonly PlatformResult[];
  readonly letters: readonly { readonly letter: string; readonly lowest: string }[];
}

export interface PlatformClass {
  readonly id: string;
  readonly title: string;
  readonly code: string | null;
  readonly term: string;
}

export interface PlatformPerson {
  readonly id: string;
  /** The number of the information system, where somebody entered it. */
  readonly identifier: string | null;
  readonly email: string | null;
  readonly givenName: string;
  readonly familyName: string;
  readonly birthDate: string | null;
}

/** What assignments of a class are kept in. */
export interface PlatformGroup {
  readonly id: string;
  readonly classId: string;
  readonly title: string;
  /** Percent of the whole; null on a platform that does not weigh. */
  readonly weight: number | null;
}

export interface PlatformLineItem {
  readonly id: string;
  readonly classId: string;
  readonly label: string;
  /** 0 where none is stated. */
  readonly scoreMaximum: number;
  readonly groupId: string | null;
  readonly dueOn: string | null;
  /** The column of the whole class rather than of one assignment. */
  readonly isTotal: boolean;
  /** Said only where the platform says no. */
  readonly isMarked?: false;
  readonly isPublished?: false;
  readonly isGraded?: false;
  /** Ids of the people it was given to; everybody where nothing is said. */
  readonly givenTo?: readonly string[];
}

export interface PlatformResult {
  readonly lineItemId: string;
  readonly personId: string;
  readonly score: number | null;
  /** On a platform that gives letters. */
  readonly letter?: string;
}

/** How a platform answers, where the standards leave it open. */
export interface PlatformHabits {
  readonly name: string;
  readonly clientId: string;
  readonly clientSecret: string;
  readonly pageSize: number;
  /** Whether a list says how long it is altogether, in X-Total-Count. */
  readonly tellsTotal: boolean;
  /** Seconds for which a token is good. */
  readonly tokenSeconds: number;
}
