/** The views of the matches, each with its name. */
export const views = [
  ['class', 'Classes'],
  ['group', 'Groups'],
  ['total', 'Totals'],
  ['letter', 'Labels'],
  ['person', 'People'],
  ['weights', 'Weights'],
  ['table', 'All sections'],
] as const;
export type View = (typeof views)[number][0];
