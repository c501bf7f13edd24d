import { Nested, NestedList } from '#contract/requests';
import type { RoundingName } from '#core/numbers';
import { courseLevels, type CourseLevel } from '#core/courses';
import { placementKinds, scaleKinds, type PlacementKind, type ScaleKind } from '#core/scales';
import { IsBoolean, IsIn, IsInt, IsString, Length, Matches, MaxLength, ValidateIf } from 'class-validator';

/** A band as it crosses the wire; numbers are decimal text, so that nothing is lost. */
export class BandBody {
  @IsString()
  @Length(1, 12, { message: 'a label of 1 to 12 characters, such as B+' })
  label!: string;

  @ValidateIf((band: BandBody) => band.lowest !== null)
  @Matches(/^\d{1,3}(\.\d{1,2})?$/, { message: 'a percentage, or a level, with at most two decimals, such as 89.5' })
  lowest!: string | null;

  @ValidateIf((band: BandBody) => band.points !== null)
  @Matches(/^\d{1,2}(\.\d{1,2})?$/, { message: 'grade points such as 3.7, or empty' })
  points!: string | null;

  @IsBoolean()
  passes!: boolean;

  @IsBoolean()
  earnsCredit!: boolean;

  @IsString()
  @MaxLength(60, { message: 'at most 60 characters' })
  descriptor!: string;

  @IsBoolean()
  isOff!: boolean;
}

class BandsBody {
  @NestedList(() => BandBody, 40, 'at most 40 bands')
  bands!: BandBody[];
}

export class SaveScaleRequest extends BandsBody {
  /** The version that the draft began from. */
  @IsInt()
  basedOnVersion!: number;

  /** The period from which the new version is in force. */
  @IsInt()
  fromPeriodId!: number;
}

export class PreviewScaleRequest extends BandsBody {
  /** The period whose grades are looked at. */
  @IsInt()
  periodId!: number;
}

/** How a scale lies beside the one it is tied to. */
export class TieBody {
  @IsInt({ message: 'a scale of this school' })
  toId!: number;

  @Matches(/^-?\d{1,2}(\.\d{1,2})?$/, { message: 'points of percent to shift the cut-offs by, such as -0.5, or 0' })
  cutOffShift!: string;

  @Matches(/^-?\d(\.\d{1,2})?$/, { message: 'grade points to shift by, such as 0.5, or 0' })
  pointsShift!: string;
}

export class ScaleFactsRequest {
  /** Of the scale that the change began from. */
  @IsString()
  revision!: string;

  @IsString()
  @Length(1, 60, { message: 'a name of 1 to 60 characters' })
  name!: string;

  @ValidateIf((scale: ScaleFactsRequest) => scale.tie !== null)
  @Nested(() => TieBody, 'a scale to follow, or null')
  tie!: TieBody | null;
}

export class NewScaleRequest extends BandsBody {
  @IsString()
  @Length(1, 60, { message: 'a name of 1 to 60 characters' })
  name!: string;

  @IsIn(scaleKinds, { message: `one of ${scaleKinds.join(', ')}` })
  kind!: ScaleKind;

  /** The level at the top of a level scale; null for the others. */
  @ValidateIf((scale: NewScaleRequest) => scale.highestLevel !== null)
  @Matches(/^\d{1,2}(\.\d{1,2})?$/, { message: 'the highest level, such as 4' })
  highestLevel!: string | null;

  /** For every school of the district, rather than for one. */
  @IsBoolean()
  isDistrictWide!: boolean;

  /** Tied to another scale its bands follow that one, and `bands` is left empty. */
  @ValidateIf((scale: NewScaleRequest) => scale.tie !== null)
  @Nested(() => TieBody, 'a scale to follow, or null')
  tie!: TieBody | null;

  @IsInt()
  fromPeriodId!: number;
}

/**
 * Lets a scale be used at one place from a period on, or with `scaleId` null lets that place inherit from then on. Periods
 * before it keep what they have.
 */
export class PlaceScaleRequest {
  @IsIn(placementKinds, { message: `one of ${placementKinds.join(', ')}` })
  kind!: PlacementKind;

  @ValidateIf((place: PlaceScaleRequest) => place.department !== null)
  @IsString()
  department!: string | null;

  @ValidateIf((place: PlaceScaleRequest) => place.level !== null)
  @IsIn(courseLevels, { message: `one of ${courseLevels.join(', ')}` })
  level!: CourseLevel | null;

  @ValidateIf((place: PlaceScaleRequest) => place.courseId !== null)
  @IsInt()
  courseId!: number | null;

  @ValidateIf((place: PlaceScaleRequest) => place.sectionId !== null)
  @IsInt()
  sectionId!: number | null;

  @ValidateIf((place: PlaceScaleRequest) => place.scaleId !== null)
  @IsInt()
  scaleId!: number | null;

  @IsBoolean()
  isLocked!: boolean;

  @IsInt()
  fromPeriodId!: number;

  /** Of what the person saw at the place, as `placeRevisions` tells it; null where nothing was. */
  @ValidateIf((place: PlaceScaleRequest) => place.revision !== null)
  @IsString()
  revision!: string | null;
}

/** A tie as it would be, and the period from which on. */
export class PreviewTieRequest {
  @Nested(() => TieBody, 'a scale to follow')
  tie!: TieBody;

  @IsInt()
  periodId!: number;
}

export interface ScaleVersionReply {
  readonly number: number;
  readonly fromPeriod: string;
  readonly savedBy: string | null;
  readonly savedAt: string;
}

export interface TieReply extends TieBody {
  readonly toName: string;
}

export interface ScaleReply {
  readonly id: number;
  readonly revision: string;
  readonly name: string;
  readonly isDistrictWide: boolean;
  readonly kind: ScaleKind;
  /** The level at the top of a level scale; null for the others. */
  readonly highestLevel: string | null;
  readonly tie: TieReply | null;
  /** Scales that are tied to this one and follow each of its versions. */
  readonly followers: readonly { readonly id: number; readonly name: string }[];
  /** The precision of the first item that uses it; half up to one decimal where none does yet. */
  readonly digits: number;
  readonly rounding: RoundingName;
  /** The version in force in the period asked for, or the first one where the scale begins later. */
  readonly version: ScaleVersionReply;
  readonly latestVersion: number;
  /** From the highest cut-off down, then those without one in their order. */
  readonly bands: readonly BandBody[];
  readonly versions: readonly ScaleVersionReply[];
  /** Items that use it in the period, and how many courses do so. */
  readonly items: readonly string[];
  readonly coursesUsingIt: number;
  /** The period's percents, posted where there are some and computed otherwise, and how often each occurs. */
  readonly tallies: readonly { readonly percent: string; readonly grades: number }[];
}

/** A scale put in force at a place. */
export interface PlacementReply {
  readonly id: number;
  readonly kind: PlacementKind;
  readonly department: string | null;
  readonly level: CourseLevel | null;
  readonly courseId: number | null;
  readonly sectionId: number | null;
  /** As people say it: "honours courses", "Tidal Ecology". */
  readonly place: string;
  readonly scaleId: number;
  readonly isLocked: boolean;
  /** The period from which on it holds; null where it always has. */
  readonly fromPeriod: string | null;
  /** Whether the scale has a version by then; until it has, the next wider place counts. */
  readonly isBegun: boolean;
}

/** What begins at a place with a later period; without a scale the place inherits from then on. */
export interface LaterPlacementReply {
  readonly place: string;
  readonly scale: string | null;
  readonly fromPeriod: string;
}

export interface ScalesReply {
  readonly scales: readonly ScaleReply[];
  /** In the period asked for. */
  readonly placements: readonly PlacementReply[];
  readonly laterPlacements: readonly LaterPlacementReply[];
  /** By `placeKey`, the revision of all that is placed there, in whichever period; what is left out has nothing. */
  readonly placeRevisions: Readonly<Record<string, string>>;
  /** The district's codes, which no label may read like. */
  readonly codes: readonly string[];
  readonly departments: readonly string[];
  readonly sections: readonly { readonly id: number; readonly name: string }[];
  readonly courses: readonly {
    readonly id: number;
    readonly title: string;
    /** The scale in force and the place that says so; null where none is. */
    readonly scaleId: number | null;
    readonly placementId: number | null;
    /** Places below that a lock overrules. */
    readonly overruled: number;
  }[];
}

export interface LabelMoveReply {
  readonly from: string | null;
  readonly to: string | null;
  readonly grades: number;
}

/** What a draft would do to the grades of a period. */
export interface ScaleEffectReply {
  readonly grades: number;
  readonly milliseconds: number;
  /** The bands of the scales concerned, each label once, those of now before those of then. */
  readonly bands: readonly BandBody[];
  readonly moves: readonly LabelMoveReply[];
  readonly changed: number;
  readonly passAnew: number;
  readonly failAnew: number;
  readonly meanBefore: string | null;
  readonly meanAfter: string | null;
  /** Students a label of whose would change. */
  readonly students: readonly StudentEffectReply[];
}

export interface StudentEffectReply {
  readonly studentId: number;
  readonly student: string;
  readonly studentNumber: string;
  readonly changes: readonly {
    readonly item: string;
    readonly section: string;
    readonly percent: string | null;
    readonly from: string | null;
    readonly to: string | null;
  }[];
  readonly gpaBefore: string | null;
  readonly gpaAfter: string | null;
}
