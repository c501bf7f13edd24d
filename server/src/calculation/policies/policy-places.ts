import type { PolicyPlace } from '#core/calculation';

export function isSamePlace(a: PolicyPlace, b: PolicyPlace): boolean {
  return a.department === b.department && a.sectionId === b.sectionId && a.periodId === b.periodId;
}

/**
 * A place of a school as changes name it, without spaces.
 * @example policyId(1, { department: 'Sea and Sky', sectionId: null, periodId: 4 }) // '1/Sea%20and%20Sky//4'
 */
export function policyId(schoolId: number, { department, sectionId, periodId }: PolicyPlace): string {
  return [schoolId, encodeURIComponent(department ?? ''), sectionId ?? '', periodId ?? ''].join('/');
}

/** What such a name names. */
export function placeOfPolicy(id: string): { readonly schoolId: number; readonly place: PolicyPlace } {
  const [school, department, section, period] = id.split('/') as [string, string, string, string];
  const place = {
    department: department === '' ? null : decodeURIComponent(department),
    sectionId: section === '' ? null : Number(section),
    periodId: period === '' ? null : Number(period),
  };
  return { schoolId: Number(school), place };
}
