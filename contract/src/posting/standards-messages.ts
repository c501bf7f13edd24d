import { NestedList } from '#contract/requests';
import { ArrayMinSize, ArrayUnique, IsBoolean, IsInt, IsOptional, IsString, MaxLength } from 'class-validator';
import { MarkChangeBody, type SaveSheetReply, type SheetReply } from './posting-messages.js';
import { longestNote } from './word-messages.js';

/** What changes on the sheet of one standard. */
export class StandardChangesBody {
  @IsInt()
  itemId!: number;

  @ArrayMinSize(1, { message: 'at least one change' })
  @NestedList(() => MarkChangeBody, 500, 'at most 500 changes at once')
  changes!: MarkChangeBody[];
}

/** What changes on the sheets of some standards of one section. */
class StandardsChanges {
  @ArrayMinSize(1, { message: 'at least one standard' })
  @ArrayUnique(({ itemId }: StandardChangesBody) => itemId, { message: 'each standard at most once' })
  @NestedList(() => StandardChangesBody, 60, 'at most 60 standards at once')
  sheets!: StandardChangesBody[];
}

/** Saves the standards of a section at once. */
export class SaveStandardsRequest extends StandardsChanges {
  @IsOptional()
  @IsBoolean()
  outsideWindow?: boolean;
}

/** Asks a registrar to post what was typed on the standards of a section, where whoever typed it may not any more. */
export class HandStandardsRequest extends StandardsChanges {
  @IsString()
  @MaxLength(longestNote, { message: 'at most 1,000 characters' })
  note!: string;
}

/** The sheets of all standards that a section reports in a period, in the order of the report card. */
export interface StandardsReply {
  readonly sheets: readonly SheetReply[];
}

export interface SaveStandardsReply {
  /** In the order of the request. */
  readonly sheets: readonly SaveSheetReply[];
}
