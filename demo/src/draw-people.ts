import { demoAccounts, type DemoAccount } from './demo-accounts.js';
import type { District } from './district.js';
import { familyNames, givenNames, shortNames } from './names.js';
import type { Random } from './random.js';
import { schoolPlans } from './schools.js';

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
  const taken = new Set(demoAccounts.map(({ givenName, familyName }) => `${givenName} ${familyName}`));
  let nextId = known.length + 1;
  const draw = (kind: 'student' | 'staff', schoolId: number, yearGroup: string | null) => {
    let [givenName, familyName] = names.pop()!;
    while (taken.has(`${givenName} ${familyName}`)) [givenName, familyName] = names.pop()!;
    const id = nextId++;
    const sourcedId = `${kind === 'student' ? 'S' : 'T'}${String(10_000 + id * 7)}`;
    const email = `${givenName}.${familyName}@port-elowen.example`.toLowerCase();
    const birthDate = yearGroup === null ? null : birthDateOf(yearGroup, random);
    district.people.push({
      id,
      sourcedId,
      isMadeHere: false,
      kind,
      schoolId,
      givenName,
      familyName,
      pronoun: kind === 'student' ? pronounOf(givenName, familyName) : null,
      preferredName: kind === 'student' ? (shortNames[givenName] ?? null) : null,
      email,
      birthDate,
      yearGroup,
    });
    return id;
  };
  known.forEach((account, at) => district.people.push(personOf(account, at + 1)));
  const teachers = new Map<number, number[]>();
  const students = new Map<number, DrawnStudent[]>();
  for (const plan of schoolPlans) {
    const first = plan.id === 1 ? [2] : [];
    teachers.set(plan.id, [
      ...first,
      ...Array.from({ length: plan.teachers - first.length }, () => draw('staff', plan.id, null)),
    ]);
    const years = yearGroupsOf(plan.id);
    const drawn = Array.from({ length: plan.students }, (_each, index) => {
      const yearGroup = years[index % years.length]!;
      return { id: draw('student', plan.id, yearGroup), yearGroup, strength: random.bell() };
    });
    students.set(plan.id, drawn);
  }
  for (const account of demoAccounts) {
    const personId = known.includes(account)
      ? known.indexOf(account) + 1
      : account.teacher === null
        ? nextId++
        : teachers.get(account.schoolId)![account.teacher]!;
    // Somebody who teaches is one of those who were drawn, under their own name.
    const at = district.people.findIndex(({ id }) => id === personId);
    district.people[at === -1 ? district.people.length : at] = personOf(account, personId);
    district.accounts.push({ ...account, personId });
  }
  return { teachers, students };
}

/** Their numbers come before everybody else's. */
const known = demoAccounts.slice(0, 2);

function personOf({ givenName, familyName, schoolId }: DemoAccount, id: number): District['people'][number] {
  const email = `${givenName}.${familyName}@port-elowen.example`.toLowerCase();
  const sourcedId = `T${10_000 + id * 7}`;
  return {
    id,
    sourcedId,
    isMadeHere: false,
    kind: 'staff',
    schoolId,
    givenName,
    familyName,
    pronoun: null,
    preferredName: null,
    email,
    birthDate: null,
    yearGroup: null,
  };
}

function yearGroupsOf(schoolId: number): readonly string[] {
  return schoolId === 1 ? ['9', '10', '11', '12'] : schoolId === 2 ? ['1', '2', '3', '4', '5'] : ['adult'];
}

function birthDateOf(yearGroup: string, random: Random): string {
  const year = yearGroup === 'adult' ? random.whole(1970, 2005) : 2019 - Number(yearGroup);
  return `${year}-${String(random.whole(1, 12)).padStart(2, '0')}-${String(random.whole(1, 28)).padStart(2, '0')}`;
}

/** As the name says, by no rule of the world: the same for the same name. */
export function pronounOf(givenName: string, familyName: string): 'she' | 'he' | 'they' {
  const sum = Array.from(givenName + familyName, (letter) => letter.codePointAt(0)!).reduce((a, b) => a + b, 0);
  return sum % 25 === 0 ? 'they' : sum % 2 === 0 ? 'she' : 'he';
}
