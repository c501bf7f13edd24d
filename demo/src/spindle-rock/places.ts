import { decimalOrThrow } from '#core/numbers';
import type { OwnPlace } from '../policies.js';
import { spindleRock } from './spindle-rock.js';

const department = (name: string): OwnPlace => ({
  schoolId: spindleRock.id,
  department: name,
  section: null,
  change: (policy) => policy,
});

/** Weights of work, tests and field notes. */
const section = (name: string, ...weights: readonly string[]): OwnPlace => ({
  schoolId: spindleRock.id,
  department: null,
  section: name,
  change: (policy) => ({
    ...policy,
    categories: policy.categories.map((share, at) => ({ ...share, weight: decimalOrThrow(weights[at]!) })),
  }),
});

/** The department of Lamp Keeping has none: nobody set how its grade books are calculated. */
export const spindleRockPlaces: readonly OwnPlace[] = [
  ...['Sea', 'Numbers', 'Words', 'Reading', 'Hands', 'Music'].map(department),
  section('Tide Arithmetic 2', '60', '20', '20'),
  section('Driftwood Accounts 1', '50', '40', '20'),
  section('Signal Flags 1', '33.3', '33.3', '33.4'),
  section('Knot Lore 1', '50', '50', '0'),
  section('Cloud Names 1', '60', '40', '0'),
  section('Charts of the Rock 1', '20', '70', '10'),
  section('Harbour Talk 1', '30', '50', '20'),
  {
    schoolId: spindleRock.id,
    department: null,
    section: 'Net Geometry 2',
    // The same as beside it, written down the other way round.
    change: (policy) => ({ ...policy, categories: policy.categories.toReversed() }),
  },
];
