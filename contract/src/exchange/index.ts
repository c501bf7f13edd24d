import {
  exchangeFiles,
  exchangeOutcomes,
  exchangeVersions,
  type ExchangeFile,
  type ExchangeOutcome,
  type ExchangeStatus,
  type ExchangeVersion,
  type PlannedExchangeRow,
} from '#core/exchange';
import { IsIn, IsOptional, IsString, Length } from 'class-validator';

/** Megabytes of one zip. */
export const largestZipMegabytes = 50;

export class ExportQuery {
  @IsIn(exchangeVersions)
  version!: ExchangeVersion;
}

export class ExchangeRowsQuery {
  @IsOptional()
  @IsIn(exchangeFiles)
  file?: ExchangeFile;

  @IsOptional()
  @IsIn(exchangeOutcomes)
  outcome?: ExchangeOutcome;
}

export class AcceptExchangeRequest {
  /** The fingerprint of the preview that was looked at. */
  @IsString()
  @Length(64, 64)
  previewId!: string;
}

export interface ExchangeSummaryReply {
  readonly id: number;
  readonly fileName: string;
  readonly version: ExchangeVersion;
  readonly status: ExchangeStatus;
  readonly readBy: string;
  readonly readAt: string;
  /** Rows to be written, and how many of them are, while it is being written. */
  readonly stepCount: number;
  readonly stepsDone: number;
  /** Why the writing broke off, in words; what was written stays, and writing goes on from there. */
  readonly problem: string | null;
}

export interface ExchangeImportReply extends ExchangeSummaryReply {
  /** Null once it was taken in. */
  readonly previewId: string | null;
  readonly files: readonly {
    readonly file: ExchangeFile;
    readonly mode: 'bulk' | 'delta';
    readonly rows: number;
    readonly counts: Readonly<Record<ExchangeOutcome, number>>;
  }[];
  /** Files that are in the zip and of which Wombat holds nothing. */
  readonly passedOver: readonly string[];
  /** Files that are not in UTF-8, as the standard wants them, and how they were read. */
  readonly encodings: readonly { readonly file: string; readonly encoding: string }[];
}

export interface ExchangeRowsReply {
  readonly rows: readonly PlannedExchangeRow[];
  readonly total: number;
}
