import type { MatchState, PersonConflict, PersonMatch, ProposalReason, SectionReason } from '#core/matching';
import type { ClassMatchReply, NameKind } from '#contract/matching';
import { counted } from '#contract/messages';

export const stateWords: Record<MatchState, string> = {
  joined: 'joined',
  proposed: 'proposed',
  conflicting: 'in conflict',
  unmatched: 'nothing like it here',
  ignored: 'ignored',
};

/** What the three kinds of names are called, theirs and ours. */
export const kindWords: Record<NameKind, { readonly theirs: string; readonly ours: string }> = {
  group: { theirs: 'group', ours: 'category' },
  total: { theirs: 'total column', ours: 'report item' },
  letter: { theirs: 'platform label', ours: 'label' },
};

/** Why a name of theirs may mean one of ours. */
export function sayReasons(reasons: readonly ProposalReason[]): string {
  return reasons.map(sayReason).join('; ');
}

function sayReason(reason: ProposalReason): string {
  switch (reason.kind) {
    case 'same':
      return 'the same name';
    case 'case':
      return 'the same but for capitals and signs';
    case 'plural':
      return 'singular and plural';
    case 'abbreviation':
      return 'a usual short form';
    case 'within':
      return 'one name contains the other';
    case 'spelling':
      return `spelt ${Math.floor(reason.similarity * 100)} % alike`;
    case 'weight':
      return 'same weight';
    case 'onlyWeight':
      return `only the weight of ${reason.weight} % fits`;
    case 'otherWeight':
      return `weighs ${reason.theirs} %, ours ${reason.ours} %`;
    case 'earlier':
      return `chosen ${reason.times === 1 ? 'once' : counted(reason.times, 'time')} before`;
  }
}

/** Why a class may be a section. */
export function saySectionReasons(reasons: readonly SectionReason[]): string {
  return reasons.map(saySectionReason).join('; ');
}

function saySectionReason(reason: SectionReason): string {
  switch (reason.kind) {
    case 'code':
      return 'same code';
    case 'students':
      return reason.common === reason.of
        ? `the same ${counted(reason.of, 'student')}`
        : `${reason.common} of ${counted(reason.of, 'student')} in both`;
    case 'nobody':
      return 'it has no students yet';
    case 'title':
      return 'same title';
    case 'titleLike':
      return 'a title like it';
    case 'titleOther':
      return 'another title';
  }
}

/** Why a class is not proposed for a section, or why it is. */
export function sayClass({ best, between, claimedBy, state }: ClassMatchReply): string {
  if (best && state === 'proposed') return saySectionReasons(best.reasons);
  if (claimedBy.length > 0) return `also claimed by ${claimedBy.slice(1).join(', ')}`;
  if (between.length > 0) return `${counted(between.length, 'section')} fit about equally`;
  return state === 'unmatched' ? 'no section has its students or its title' : '';
}

const conflicts: Readonly<Record<PersonConflict, string>> = {
  twoIds: 'the number says one, the address another',
  sameAddress: 'several have this address',
  sameName: 'several have this name',
  twoAccounts: 'another account is the same student',
};

export function sayPerson(match: PersonMatch): string {
  switch (match.state) {
    case 'joined':
      return match.by === 'identifier' ? 'same number' : 'same address';
    case 'proposed':
      return match.by === 'nameAndBirthDate' ? 'same name and day of birth; no number, no address' : 'same name only';
    case 'conflicting':
      return conflicts[match.by];
    case 'unmatched':
      return 'no student here has the number, the address or the name';
  }
}

/** A weight in percent, or the range where sections differ. */
export function sayWeights(weights: readonly (number | null)[]): string {
  const known = weights.filter((weight) => weight !== null);
  if (known.length === 0) return '–';
  const [least, most] = [Math.min(...known), Math.max(...known)];
  return least === most ? `${least} %` : `${least}–${most} %`;
}
