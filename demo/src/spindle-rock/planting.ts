import type { District, GradeRow } from '../district.js';
import { placeOf, type PlantedFault } from '../plant-faults.js';
import type { DrawnRock } from './draw-spindle-rock.js';
import { items } from './spindle-rock.js';

/** What is planted, as it goes on: faults, and decoys that look like them and are right. */
export interface Planting extends DrawnRock {
  readonly district: District;
  readonly faults: PlantedFault[];
  readonly decoys: PlantedFault[];
  /** @param at what the fault is about: a grade, a section by its name, or a course or an item by its own */
  fault(rule: string, what: string, at: PlantedAt): void;
  decoy(rule: string, what: string, at: PlantedAt): void;
  /** The grades of an item in a section. */
  gradesOf(section: string, itemId?: number): GradeRow[];
  /** Another grade of the section at each call, which nothing was done to. */
  nextOf(section: string): GradeRow;
}

type PlantedAt = GradeRow | string | { readonly course: string } | { readonly item: string };

export function beginPlanting(district: District, rock: DrawnRock): Planting {
  const aboutWhat = (at: PlantedAt): Pick<PlantedFault, 'section' | 'student'> & Partial<PlantedFault> => {
    if (typeof at === 'string') return { section: at, student: null };
    if (!('enrollmentId' in at)) return { section: null, student: null, ...at };
    return placeOf(district, at);
  };
  const addTo = (list: PlantedFault[]) => (rule: string, what: string, at: PlantedAt) =>
    void list.push({ rule, what, ...aboutWhat(at), period: 'Second term' });
  const [faults, decoys]: [PlantedFault[], PlantedFault[]] = [[], []];
  const gradesOf = (section: string, itemId: number = items.termGrade) => {
    const own = new Set(rock.enrollmentsOf(rock.named(section)).map(({ id }) => id));
    return district.grades.filter((grade) => own.has(grade.enrollmentId) && grade.itemId === itemId);
  };
  const touched = new Set<GradeRow>();
  return {
    ...rock,
    district,
    faults,
    decoys,
    fault: addTo(faults),
    decoy: addTo(decoys),
    gradesOf,
    nextOf(section) {
      const next = gradesOf(section).find(
        (grade) => !touched.has(grade) && grade.label !== 'F' && grade.comment === '' && grade.code === null,
      )!;
      touched.add(next);
      return next;
    },
  };
}
