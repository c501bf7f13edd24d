export const themes = ['light', 'dark', 'system'] as const;
export type Theme = (typeof themes)[number];

/** Whether lists of people go by family or by given name. */
export const peopleOrders = ['family', 'given'] as const;
export type PeopleOrder = (typeof peopleOrders)[number];

/** Which given name stands where somebody goes by another than the legal one: both, or one of the two. */
export const nameStyles = ['both', 'legal', 'preferred'] as const;
export type NameStyle = (typeof nameStyles)[number];

export const densities = ['compact', 'roomy'] as const;
export type Density = (typeof densities)[number];

/** The day that weeks begin with, as a calendar counts them (0 is Sunday), or as the reader's country has it. */
export const firstWeekdays = ['country', 0, 1, 6] as const;
export type FirstWeekday = (typeof firstWeekdays)[number];

/** How somebody likes the columns of one grid; a column that it does not speak of is as the grid has it. */
export interface ColumnLayout {
  readonly hidden: readonly string[];
  /** The columns in their order; one that is not there stands where the grid has it, after those before it. */
  readonly order: readonly string[];
  /** Widths in pixels. */
  readonly widths: Readonly<Record<string, number>>;
}

/** How one person likes what they see. It changes nothing for anybody else, and no number. */
export interface OwnView {
  readonly theme: Theme;
  readonly peopleOrder: PeopleOrder;
  readonly names: NameStyle;
  readonly density: Density;
  readonly firstWeekday: FirstWeekday;
  /** By which days and figures are written, such as en-GB; empty for the browser's. */
  readonly locale: string;
  /** Whether keys of a single letter answer. */
  readonly letterKeys: boolean;
  /** Whether lists of sections begin with those alone that run today. */
  readonly onlyRunning: boolean;
  /** Whether the newest assignments come first in a grade book. */
  readonly newestFirst: boolean;
  /** Whether what somebody new in a role does first stands above every page no more. */
  readonly hidesFirstSteps: boolean;
  /** By the kind of address and the name of the grid. */
  readonly columns: Readonly<Record<string, ColumnLayout>>;
}

/** What nobody has to choose. */
export const usualView: OwnView = {
  theme: 'system',
  peopleOrder: 'family',
  names: 'both',
  density: 'compact',
  firstWeekday: 'country',
  locale: '',
  letterKeys: true,
  onlyRunning: false,
  newestFirst: false,
  hidesFirstSteps: false,
  columns: {},
};

/** What somebody changes of it; a layout that is null goes back to what the grid has. */
export type OwnViewChange = Partial<Omit<OwnView, 'columns'>> & {
  readonly columns?: Readonly<Record<string, ColumnLayout | null>>;
};

/**
 * A view after a change; what the change does not name stays.
 * @example withViewChange(usualView, { density: 'roomy' }).density // 'roomy'
 */
export function withViewChange(view: OwnView, { columns = {}, ...change }: OwnViewChange): OwnView {
  const layouts = Object.entries({ ...view.columns, ...columns }).filter(
    (entry): entry is [string, ColumnLayout] => entry[1] !== null,
  );
  return { ...view, ...change, columns: Object.fromEntries(layouts) };
}
