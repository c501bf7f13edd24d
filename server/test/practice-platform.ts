import { startPracticePlatform, type PlatformContent, type PlatformHabits, type PracticePlatform } from '#standins';
import type { PlatformReply } from '#contract/platforms';
import { PlatformsService } from '#server/platforms';
import type { TestServer } from './test-server.js';

export type { PlatformContent, PracticePlatform };

const habits: PlatformHabits = {
  name: 'Practice',
  clientId: 'wombat',
  clientSecret: 'burrow',
  pageSize: 5,
  tellsTotal: true,
  tokenSeconds: 600,
};

export function startPractice(content: PlatformContent): Promise<PracticePlatform> {
  return startPracticePlatform(habits, () => Promise.resolve(content));
}

/** Connects it to the upper school and waits until it was read, or could not be. */
export async function connectPractice(
  server: TestServer,
  { address }: PracticePlatform,
  over: object = {},
): Promise<PlatformReply> {
  const registrar = await server.as('morwenna');
  const { name, clientId, clientSecret } = habits;
  const request = { schoolId: 1, name, address, clientId, clientSecret, ...over };
  const { body } = await registrar.send<PlatformReply>('POST', '/platforms', request);
  await server.application.get(PlatformsService, { strict: false }).finished(body.id);
  return body;
}

/** Three classes of the upper school: two that are plainly sections, and a copy of the first. */
export async function practiceContent(server: TestServer): Promise<PlatformContent> {
  const { rows } = await server.database.pool.query<{
    section: number;
    title: string;
    number: number;
    students: string[];
  }>(`
    SELECT s.id AS section, c.title, s.number, array_agg(p.sourced_id || '|' || p.given_name || '|' || p.family_name || '|' || p.birth_date ORDER BY p.id) AS students
    FROM sections s JOIN courses c ON c.id = s.course_id JOIN enrollments e ON e.section_id = s.id AND e.withdrawn_on IS NULL
    JOIN people p ON p.id = e.student_id WHERE c.title IN ('Boatbuilding', 'Harbour History') AND s.number = 1
    GROUP BY s.id, c.title, s.number ORDER BY c.title`);
  const classes = [...rows.map(({ section }) => `c${section}`), 'copy'];
  const [boats, harbour] = rows as [(typeof rows)[0], (typeof rows)[0]];
  const members = [
    ...boats.students.map((student) => ({ classId: classes[0]!, personId: student.split('|')[0]! })),
    ...harbour.students.map((student) => ({ classId: classes[1]!, personId: student.split('|')[0]! })),
    ...boats.students.map((student) => ({ classId: 'copy', personId: student.split('|')[0]! })),
  ];
  const everybody = [...new Set([...boats.students, ...harbour.students])].map(
    (student) => student.split('|') as [string, string, string, string],
  );
  return {
    classes: classes.map((id, at) => ({
      id,
      title: ['Boatbuilding (1)', 'Harbour History (1)', 'Boats copy'][at]!,
      code: null,
      term: 'T',
    })),
    people: everybody.map(([id, givenName, familyName, birthDate], at) => ({
      id,
      identifier: at === 0 ? null : id,
      email: null,
      givenName,
      familyName,
      birthDate,
    })),
    members,
    groups: classes.flatMap((classId) => [
      { id: `${classId}-1`, classId, title: 'HW', weight: 10 },
      { id: `${classId}-2`, classId, title: 'Tests', weight: 40 },
      { id: `${classId}-3`, classId, title: 'Quizzes & Tests', weight: null },
    ]),
    lineItems: classes.map((classId) => ({
      id: `${classId}-total`,
      classId,
      label: 'Quarter grade',
      scoreMaximum: 100,
      groupId: null,
      dueOn: null,
      isTotal: true,
    })),
    results: [],
    letters: [{ letter: 'A', lowest: '90' }],
  };
}

/**
 * Work and totals in the first two classes: columns that can be carried over, and one of each kind that cannot. Everybody
 * has 15 of 20 for the splice and 80 of 100 altogether.
 */
export function withWork(content: PlatformContent): PlatformContent {
  const classes = content.classes.slice(0, 2).map(({ id }) => id);
  const column = (classId: string, name: string, over: Partial<PlatformContent['lineItems'][number]> = {}) => ({
    id: `${classId}-${name}`,
    classId,
    label: name,
    scoreMaximum: 20,
    groupId: `${classId}-1`,
    dueOn: '2026-01-09',
    isTotal: false,
    ...over,
  });
  const columns = classes.flatMap((classId) => [
    column(classId, 'Splice'),
    column(classId, 'Chart', { groupId: `${classId}-3` }),
    column(classId, 'Autumn walk', { dueOn: '2025-10-01' }),
    column(classId, 'Sketch', { isPublished: false }),
    column(classId, 'Reading', { dueOn: null }),
  ]);
  const scored = [...columns.filter(({ label }) => label !== 'Sketch'), ...content.lineItems];
  const results = scored.flatMap(({ id, classId, isTotal }) =>
    content.members
      .filter((member) => member.classId === classId)
      .map(({ personId }) => ({ lineItemId: id, personId, score: isTotal ? 80 : 15 })),
  );
  return { ...content, lineItems: [...content.lineItems, ...columns], results };
}
