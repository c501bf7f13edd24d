import type { FamilyTime, FamilyView } from '#core/report-items';

const views: Record<Exclude<FamilyView, 'hidden'>, string> = {
  label: 'the label',
  percent: 'the percentage',
  both: 'the percentage and the label',
  descriptor: 'the descriptor in words',
};
const times: Record<FamilyTime, string> = {
  posted: 'as soon as it is posted',
  closed: 'once the posting window has closed',
  sealed: 'once the period is sealed',
};

/** How families see an item, in one sentence. */
export function familySentence({ familyView, familyTime }: { familyView: FamilyView; familyTime: FamilyTime }): string {
  return familyView === 'hidden'
    ? 'Families do not see it.'
    : `Families see ${views[familyView]} ${times[familyTime]}.`;
}
