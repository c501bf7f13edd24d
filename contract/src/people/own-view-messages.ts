import { IsBoolean, IsIn, IsOptional, ValidateBy } from 'class-validator';
import {
  densities,
  firstWeekdays,
  nameStyles,
  peopleOrders,
  themes,
  type ColumnLayout,
  type Density,
  type FirstWeekday,
  type NameStyle,
  type OwnViewChange,
  type PeopleOrder,
  type Theme,
} from '#core/people';

/** What somebody changes of how they see things; what is left out stays. */
export class ChangeOwnViewRequest implements OwnViewChange {
  @IsOptional()
  @IsIn(themes)
  theme?: Theme;

  @IsOptional()
  @IsIn(peopleOrders)
  peopleOrder?: PeopleOrder;

  @IsOptional()
  @IsIn(nameStyles)
  names?: NameStyle;

  @IsOptional()
  @IsIn(densities)
  density?: Density;

  @IsOptional()
  @IsIn(firstWeekdays)
  firstWeekday?: FirstWeekday;

  @IsOptional()
  @ValidateBy({
    name: 'isLocale',
    validator: { validate: isLocale, defaultMessage: () => 'a language and country, such as en-GB, or nothing' },
  })
  locale?: string;

  @IsOptional()
  @IsBoolean()
  letterKeys?: boolean;

  @IsOptional()
  @IsBoolean()
  onlyRunning?: boolean;

  @IsOptional()
  @IsBoolean()
  newestFirst?: boolean;

  @IsOptional()
  @IsBoolean()
  hidesFirstSteps?: boolean;

  /** By the kind of address and the name of the grid; null for one that goes back to what it had. */
  @IsOptional()
  @ValidateBy({
    name: 'areColumnLayouts',
    validator: { validate: areLayouts, defaultMessage: () => 'columns of at most 20 grids: hidden, order and widths' },
  })
  columns?: Readonly<Record<string, ColumnLayout | null>>;
}

const mostGrids = 20;
const mostColumns = 200;

function isLocale(value: unknown): boolean {
  if (typeof value !== 'string' || value.length > 35) return false;
  try {
    return value === '' || Intl.getCanonicalLocales(value).length === 1;
  } catch {
    // What is no language tag throws.
    return false;
  }
}

function areLayouts(value: unknown): boolean {
  if (!isObject(value)) return false;
  const grids = Object.entries(value);
  return grids.length <= mostGrids && grids.every(([grid, layout]) => grid.length <= 120 && isLayout(layout));
}

function isLayout(value: unknown): boolean {
  if (value === null) return true;
  if (!isObject(value) || Object.keys(value).some((key) => !['hidden', 'order', 'widths'].includes(key))) return false;
  const { hidden, order, widths } = value;
  return areIds(hidden) && areIds(order) && isObject(widths) && areWidths(widths);
}

function areIds(value: unknown): boolean {
  return Array.isArray(value) && value.length <= mostColumns && value.every(isId);
}

function areWidths(widths: object): boolean {
  const entries = Object.entries(widths);
  return (
    entries.length <= mostColumns &&
    entries.every(([id, width]) => isId(id) && Number.isInteger(width) && width >= 0 && width <= 5000)
  );
}

const isId = (value: unknown) => typeof value === 'string' && value.length <= 80;

function isObject(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
