import { sql, type SQL } from 'drizzle-orm';

/**
 * Who belongs to a period: enrollments, called `e` in the query, that begin no later than its end and were not withdrawn
 * before its start. As text, for COPY too: days are digits and dashes.
 */
export function enrolledInText({ startsOn, endsOn }: { readonly startsOn: string; readonly endsOn: string }): string {
  return `e.entered_on <= '${endsOn}' AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= '${startsOn}')`;
}

export function enrolledIn(period: { readonly startsOn: string; readonly endsOn: string }): SQL {
  return sql.raw(enrolledInText(period));
}

/** Of those the ones who still sit there on its last day, and so are graded. */
export function gradedInText({ endsOn }: { readonly endsOn: string }): string {
  return gradedByText(`'${endsOn}'`);
}

export function gradedIn(period: { readonly endsOn: string }): SQL {
  return sql.raw(gradedInText(period));
}

/** The same for periods that the query itself joins, by the column of their last day. */
export function gradedByText(lastDay: string): string {
  return `e.entered_on <= ${lastDay} AND (e.withdrawn_on IS NULL OR e.withdrawn_on > ${lastDay})`;
}
