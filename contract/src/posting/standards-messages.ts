import { NestedList } from '#contract/requests';
import { ArrayMinSize, ArrayUnique, IsBoolean, IsInt, IsOptional } from 'class-validator';
import { MarkChangeBody, type SaveSheetReply, type SheetReply } from './posting-messages.js';

/** What changes on the sheet of one standard. */
export class StandardChangesBody {
  @IsInt()
  itemId!: number;

  @ArrayMinSize(1, { message: 'at least one change' })
  @NestedList(() => MarkChangeBody, 500, 'at most 500 changes at once')
  changes!: MarkChangeBody[];
}

/** Saves the standards of a section at once. */
export class SaveStandardsRequest {
  @ArrayMinSize(1, { message: 'at least one standard' })
  @ArrayUnique(({ itemId }: StandardChangesBody) => itemId, { message: 'each standard at most once' })
  @NestedList(() => StandardChangesBody, 60, 'at most 60 standards at once')
  sheets!: StandardChangesBody[];

  @IsOptional()
  @IsBoolean()
  outsideWindow?: boolean;
}

/** The sheets of all standards that a section reports in a period, in the order of the report card. */
export interface StandardsReply {
  readonly sheets: readonly SheetReply[];
}

export interface SaveStandardsReply {
  /** In the order of the request. */
  readonly sheets: readonly SaveSheetReply[];
}
