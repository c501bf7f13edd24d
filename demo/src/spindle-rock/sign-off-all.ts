import type { Planting } from './planting.js';
import { items } from './spindle-rock.js';

/** Every sheet of the school is signed off but one. */
export function signOffAll({ district, sections, named, enrollmentsOf, fault }: Planting): void {
  const unsigned = named('Stone Walls 1');
  for (const section of sections) {
    const own = new Set(enrollmentsOf(section).map(({ id }) => id));
    const posted = district.grades.filter(({ enrollmentId }) => own.has(enrollmentId));
    for (const itemId of new Set(posted.map((grade) => grade.itemId))) {
      const last = posted.filter((grade) => grade.itemId === itemId).map(({ postedAt }) => postedAt);
      if (section === unsigned && itemId === items.termGrade) continue;
      const signedAt = new Date(Date.parse(last.toSorted().at(-1)!) + 600_000);
      const sheet = { sectionId: section.id, itemId, periodId: section.periodId };
      district.signOffs.push({ ...sheet, signedBy: section.teacherId, signedAt, note: '' });
    }
  }
  fault('sheet-not-signed-off', 'the window is closed, and the sheet is not signed off', 'Stone Walls 1');
}
