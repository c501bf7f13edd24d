/** The largest whole number that the database keeps as one; no number of a thing is larger. */
export const largestId = 2_147_483_647;
