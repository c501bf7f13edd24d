import { NestedList } from '#contract/requests';
import type { PlatformReply } from '#contract/platforms';
import type { MatchDecision, MatchState, PersonMatch, Proposal, SectionProposal } from '#core/matching';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsInt, IsString, Length, ValidateIf } from 'class-validator';

export const matchKinds = ['class', 'person', 'group', 'total', 'letter'] as const;
export type MatchKind = (typeof matchKinds)[number];
export type NameKind = Exclude<MatchKind, 'class' | 'person'>;

/** One decision about things of a kind; all of them are joined to the same target, ignored, or open again. */
export class MatchDecisionBody {
  @IsIn(matchKinds)
  kind!: MatchKind;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(20_000)
  @IsInt({ each: true })
  ids!: number[];

  @IsIn(['open', 'joined', 'ignored'])
  decision!: MatchDecision;

  /** The number of a section, student, category or report item, or a label; null unless joined. */
  @ValidateIf((body: MatchDecisionBody) => body.decision === 'joined')
  @IsString()
  @Length(1, 60)
  target!: string | null;
}

export class DecideMatchesRequest {
  @ArrayMinSize(1)
  @NestedList(() => MatchDecisionBody, 5_000)
  decisions!: MatchDecisionBody[];
}

export interface TargetReply {
  readonly key: string;
  readonly name: string;
  /** Percent, for a category that is weighed. */
  readonly weight: number | null;
}

export interface ClassMatchReply {
  readonly id: number;
  readonly title: string;
  readonly code: string | null;
  readonly term: string;
  readonly students: number;
  readonly state: MatchState;
  readonly sectionId: number | null;
  readonly best: SectionProposal | null;
  readonly between: readonly SectionProposal[];
  /** Titles of the classes that the same section would be joined to. */
  readonly claimedBy: readonly string[];
}

/** One name in one class, as the table of sections and the joins of one section show it. */
export interface NameInClassReply {
  readonly id: number;
  readonly classId: number | null;
  readonly weight: number | null;
  readonly decision: MatchDecision;
  readonly target: string | null;
}

/** All that is called the same over all classes, however it is written. */
export interface NameMatchReply {
  readonly key: string;
  readonly kind: NameKind;
  readonly name: string;
  readonly places: readonly NameInClassReply[];
  readonly state: MatchState;
  /** What those that are joined are joined to; null where they differ or none is. */
  readonly target: string | null;
  readonly best: Proposal | null;
  readonly between: readonly Proposal[];
}

export interface PersonMatchReply {
  readonly id: number;
  readonly name: string;
  readonly identifier: string | null;
  readonly email: string | null;
  readonly birthDate: string | null;
  readonly state: MatchState;
  readonly match: PersonMatch;
  readonly target: CandidateReply | null;
  readonly candidates: readonly CandidateReply[];
}

export interface CandidateReply {
  readonly id: number;
  readonly name: string;
  readonly number: string;
  readonly email: string;
  readonly birthDate: string | null;
}

export interface MatchesReply {
  readonly platform: PlatformReply;
  readonly sections: readonly { readonly id: number; readonly name: string; readonly students: number }[];
  readonly targets: Readonly<Record<NameKind, readonly TargetReply[]>>;
  readonly classes: readonly ClassMatchReply[];
  readonly names: readonly NameMatchReply[];
  /** Those whom neither a number nor an address settled, and those decided by hand. */
  readonly people: readonly PersonMatchReply[];
  /** People who were found by number or address. */
  readonly peopleFound: number;
}

export interface DecidedReply {
  readonly changed: number;
}
