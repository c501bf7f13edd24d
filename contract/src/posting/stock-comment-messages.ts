import { ArrayMaxSize, IsArray, IsString, MaxLength } from 'class-validator';
import { longestComment } from './posting-messages.js';

/** The comments that teachers of a school choose from, with words in braces that each student fills in. */
export class SaveStockCommentsRequest {
  @IsArray()
  @ArrayMaxSize(200, { message: 'at most 200 comments' })
  @IsString({ each: true })
  @MaxLength(longestComment, { each: true, message: `at most ${longestComment} characters` })
  comments!: string[];

  /** Of the list that it began from. */
  @IsString()
  revision!: string;
}

export interface StockCommentsReply {
  readonly comments: readonly string[];
  readonly revision: string;
}
