import { Type } from 'class-transformer';
import { IsInt, IsISO8601, IsOptional, IsString, MaxLength } from 'class-validator';
import type { ChangedThingReply } from './change-messages.js';

/** Which entries of the log are looked for, as it stands in an address. */
export class LogRequest {
  /** A kind such as "grade", or one thing such as "grade 1/4/4711". */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  thing?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'the number of a person' })
  personId?: number;

  /** Beginnings of words of what was done, or of the key of a thing. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  text?: string;

  /** From this instant on, that one included. */
  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'an instant such as 2026-01-14T08:00:00Z' })
  from?: string;

  /** Before this instant. */
  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'an instant such as 2026-01-15T08:00:00Z' })
  until?: string;

  /** Only entries with a lower number: the way to older ones. */
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'the number of an entry' })
  before?: number;
}

/** One entry: who did what to which thing, and each fact of it before and after. */
export interface LogEntryReply extends ChangedThingReply {
  readonly id: number;
  /** ISO instant. */
  readonly at: string;
  readonly actor: string;
  readonly action: string;
  /** The change that it is a part of; null for what was logged by itself. */
  readonly change: number | null;
  readonly undoes: number | null;
  readonly why: string | null;
  readonly hash: string;
}

export interface LogReply {
  /** Newest first. */
  readonly entries: readonly LogEntryReply[];
  readonly hasMore: boolean;
  /** Everybody who ever changed something. */
  readonly people: readonly { readonly id: number; readonly name: string }[];
  readonly kinds: readonly { readonly kind: string; readonly called: string }[];
}

/** How far a check of the chain is, or what the last one found. */
export interface LogCheckReply {
  readonly state: 'waiting' | 'checking' | 'whole' | 'broken' | 'failed';
  readonly checked: number;
  readonly entries: number;
  /** The first entry that does not fit the chain. */
  readonly faultAt: number | null;
  /** When the last check ended; null while the first one goes on. */
  readonly checkedAt: string | null;
}
