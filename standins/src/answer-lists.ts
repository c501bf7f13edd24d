import type { PlatformContent } from './platform-content.js';

/** A list that a path names, under the key that the standard gives it; or null where the standard answers a bare list. */
export interface AnsweredList {
  readonly key: string | null;
  readonly type: string;
  readonly rows: readonly unknown[];
}

const json = 'application/json';
const rostering = '/ims/oneroster/rostering/v1p2';
/** Members beside those of the standard, under full names as it asks. */
const extension = 'https://wombat.example';
const gradebook = '/ims/oneroster/gradebook/v1p2';

/**
 * Rosters, groups and letters as OneRoster 1.2 has them, line items and results as LTI Assignment and Grade Services
 * 2.0 has them (1EdTech; from memory). The group of a line item is its tag, which that standard leaves to the platform.
 */
export function answerList(content: PlatformContent, path: string): AnsweredList | undefined {
  if (path === `${rostering}/classes`) return { key: 'classes', type: json, rows: content.classes.map(classRow) };
  if (path === `${rostering}/students`) return { key: 'users', type: json, rows: content.people.map(personRow) };
  if (path === `${rostering}/demographics`)
    return { key: 'demographics', type: json, rows: content.people.flatMap(birthRows) };
  if (path === `${gradebook}/scoreScales`) return { key: 'scoreScales', type: json, rows: scaleRows(content) };
  const [, place, id, what] = /^(.*)\/(?:classes|lineitems)\/([^/]+)\/(\w+)$/.exec(path) ?? [];
  if (id === undefined) return undefined;
  if (place === rostering && what === 'students') return { key: 'users', type: json, rows: memberRows(content, id) };
  if (place === gradebook && what === 'categories')
    return { key: 'categories', type: json, rows: groupRows(content, id) };
  if (place === '/ags' && what === 'lineitems')
    return { key: null, type: 'application/vnd.ims.lis.v2.lineitemcontainer+json', rows: lineItemRows(content, id) };
  if (place === '/ags' && what === 'results')
    return { key: null, type: 'application/vnd.ims.lis.v2.resultcontainer+json', rows: resultRows(content, id) };
  return undefined;
}

function classRow({ id, title, code, term }: PlatformContent['classes'][number]) {
  return {
    sourcedId: id,
    status: 'active',
    title,
    classCode: code,
    classType: 'scheduled',
    terms: [{ sourcedId: term, type: 'academicSession' }],
  };
}

function personRow({ id, identifier, email, givenName, familyName }: PlatformContent['people'][number]) {
  return { sourcedId: id, status: 'active', identifier, email, givenName, familyName, enabledUser: 'true' };
}

function birthRows({ id, birthDate }: PlatformContent['people'][number]) {
  return birthDate === null ? [] : [{ sourcedId: id, status: 'active', birthDate }];
}

function memberRows({ members, people }: PlatformContent, classId: string) {
  const own = new Set(members.filter((each) => each.classId === classId).map(({ personId }) => personId));
  return people.filter(({ id }) => own.has(id)).map(personRow);
}

function groupRows({ groups }: PlatformContent, classId: string) {
  return groups
    .filter((each) => each.classId === classId)
    .map(({ id, title, weight }) => ({
      sourcedId: id,
      status: 'active',
      title,
      ...(weight === null ? {} : { weight }),
    }));
}

function scaleRows({ letters }: PlatformContent) {
  const values = letters.map(({ letter, lowest }) => ({ itemValueLHS: letter, itemValueRHS: lowest }));
  return letters.length === 0
    ? []
    : [{ sourcedId: 'letters', status: 'active', title: 'Letters', type: 'letter', scoreScaleValue: values }];
}

function lineItemRows({ lineItems }: PlatformContent, classId: string) {
  return lineItems
    .filter((each) => each.classId === classId)
    .map(({ id, label, scoreMaximum, groupId, dueOn, isTotal, isMarked, isPublished, isGraded, givenTo }) => ({
      id: `/ags/lineitems/${id}`,
      label,
      ...(scoreMaximum > 0 ? { scoreMaximum } : {}),
      tag: isTotal ? 'total' : (groupId ?? ''),
      ...(dueOn === null ? {} : { endDateTime: `${dueOn}T23:59:00Z` }),
      [`${extension}/line-item/sends`]: isMarked,
      [`${extension}/line-item/published`]: isPublished,
      [`${extension}/line-item/graded`]: isGraded,
      [`${extension}/line-item/students`]: givenTo,
    }));
}

function resultRows({ results, lineItems }: PlatformContent, lineItemId: string) {
  const maximum = lineItems.find(({ id }) => id === lineItemId)?.scoreMaximum ?? 0;
  return results
    .filter((each) => each.lineItemId === lineItemId)
    .map(({ personId, score, letter }) => ({
      id: `/ags/lineitems/${lineItemId}/results/${personId}`,
      scoreOf: `/ags/lineitems/${lineItemId}`,
      userId: personId,
      ...(score === null ? {} : { resultScore: score, resultMaximum: maximum }),
      [`${extension}/result/letter`]: letter,
    }));
}
