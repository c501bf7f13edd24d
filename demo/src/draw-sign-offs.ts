import type { District } from './district.js';
import type { Random } from './random.js';
import { demoNow } from './schools.js';

const notes = [
  'All in.',
  'The re-sit is on Friday.',
  'One incomplete, as agreed with the office.',
  'Please look at the two codes.',
];

/**
 * Teachers sign off what they posted: all of the periods whose window is over, and of the open ones most of what is complete.
 * Those who wait do so with all of their sheets.
 */
export function drawSignOffs(district: District, random: Random): void {
  const { postingWindows, sections, enrollments, grades, signOffs } = district;
  const teacherOf = new Map(sections.map(({ id, teacherId }) => [id, teacherId]));
  const sectionOf = new Map(enrollments.map(({ id, sectionId }) => [id, sectionId]));
  const slow = new Set([...new Set(teacherOf.values())].filter(() => random.chance(0.12)));
  const sheets = new Map<
    string,
    { sectionId: number; itemId: number; periodId: number; last: string; isBlank: boolean }
  >();
  for (const { enrollmentId, itemId, periodId, percent, label, code, postedAt } of grades) {
    const sectionId = sectionOf.get(enrollmentId)!;
    const key = `${sectionId}/${itemId}/${periodId}`;
    const sheet = sheets.get(key) ?? { sectionId, itemId, periodId, last: postedAt, isBlank: false };
    if (postedAt > sheet.last) sheet.last = postedAt;
    if ((percent ?? label ?? code) === null) sheet.isBlank = true;
    sheets.set(key, sheet);
  }
  for (const { last, isBlank, ...place } of sheets.values()) {
    const window = postingWindows.find(
      ({ itemId, periodId }) => itemId === place.itemId && periodId === place.periodId,
    );
    if (!window) continue;
    const isOver = new Date(window.closesAt).toISOString() < demoNow;
    const teacherId = teacherOf.get(place.sectionId)!;
    if (!isOver && (isBlank || slow.has(teacherId) || random.chance(0.08))) continue;
    const signedAt = new Date(Date.parse(last) + random.whole(1, 50) * 60_000);
    const note = random.chance(0.15) ? random.pick(notes) : '';
    signOffs.push({ ...place, signedBy: teacherId, signedAt, note });
  }
}

/** What teachers of a school choose their comments from. */
export const stockComments: readonly string[] = [
  '{Name} works with care and finishes what {they} {do}.',
  '{Name} has made good progress; {they} {are} ready for harder work.',
  '{Name} does well when {they} {are} prepared. Please read {their} notes with {them}.',
  'Late work has lowered {their} grade. {They} {have} until the end of the period to hand it in.',
  '{Name} was away often and has missed what was taught. We should talk.',
];
