import type { District } from './district.js';
import { familyNames, givenNames } from './names.js';
import type { Random } from './random.js';
import { schoolPlans } from './schools.js';

/** The people who can sign in to the demo, and who they are in it. Their numbers come before everybody else's. */
export const demoAccounts = [
  {
    personId: 1,
    username: 'morwenna',
    givenName: 'Morwenna',
    familyName: 'Oake',
    role: 'registrar',
    does: 'registrar of the district: everything',
  },
  {
    personId: 2,
    username: 'harun',
    givenName: 'Harun',
    familyName: 'Nance',
    role: 'teacher',
    does: 'teacher at the Upper School: the grade sheets of his sections',
  },
] as const;

/** The same for all of them, as nothing here is secret. */
export const demoPassword = 'low-tide';

export interface DrawnPeople {
  /** Numbers of a school's teachers and students. */
  readonly teachers: ReadonlyMap<number, readonly number[]>;
  readonly students: ReadonlyMap<number, readonly DrawnStudent[]>;
}

export interface DrawnStudent {
  readonly id: number;
  readonly yearGroup: string;
  /** How well the student does, around 0. */
  readonly strength: number;
}

/** Draws teachers and students; no two of them bear the same name. */
export function drawPeople(district: District, random: Random): DrawnPeople {
  const names = random.shuffle(givenNames.flatMap((given) => familyNames.map((family) => [given, family] as const)));
  const taken = new Set<string>(demoAccounts.map(({ givenName, familyName }) => `${givenName} ${familyName}`));
  let nextId = demoAccounts.length + 1;
  const draw = (kind: 'student' | 'staff', schoolId: number, yearGroup: string | null) => {
    let [givenName, familyName] = names.pop()!;
    while (taken.has(`${givenName} ${familyName}`)) [givenName, familyName] = names.pop()!;
    const id = nextId++;
    const sourcedId = `${kind === 'student' ? 'S' : 'T'}${String(10_000 + id * 7)}`;
    const email = `${givenName}.${familyName}@port-elowen.example`.toLowerCase();
    const birthDate = yearGroup === null ? null : birthDateOf(yearGroup, random);
    district.people.push({ id, sourcedId, kind, schoolId, givenName, familyName, email, birthDate, yearGroup });
    return id;
  };
  for (const { personId, givenName, familyName } of demoAccounts) {
    const email = `${givenName}.${familyName}@port-elowen.example`.toLowerCase();
    district.people.push({
      id: personId,
      sourcedId: `T${10_000 + personId * 7}`,
      kind: 'staff',
      schoolId: 1,
      givenName,
      familyName,
      email,
      birthDate: null,
      yearGroup: null,
    });
  }
  const teachers = new Map<number, number[]>();
  const students = new Map<number, DrawnStudent[]>();
  for (const plan of schoolPlans) {
    const known = plan.id === 1 ? [2] : [];
    teachers.set(plan.id, [
      ...known,
      ...Array.from({ length: plan.teachers - known.length }, () => draw('staff', plan.id, null)),
    ]);
    const years = yearGroupsOf(plan.id);
    const drawn = Array.from({ length: plan.students }, (_each, index) => {
      const yearGroup = years[index % years.length]!;
      return { id: draw('student', plan.id, yearGroup), yearGroup, strength: random.bell() };
    });
    students.set(plan.id, drawn);
  }
  return { teachers, students };
}

function yearGroupsOf(schoolId: number): readonly string[] {
  return schoolId === 1 ? ['9', '10', '11', '12'] : schoolId === 2 ? ['1', '2', '3', '4', '5'] : ['adult'];
}

function birthDateOf(yearGroup: string, random: Random): string {
  const year = yearGroup === 'adult' ? random.whole(1970, 2005) : 2019 - Number(yearGroup);
  return `${year}-${String(random.whole(1, 12)).padStart(2, '0')}-${String(random.whole(1, 28)).padStart(2, '0')}`;
}
