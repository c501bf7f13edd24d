import {
  exchangeFiles,
  exchangeOutcomes,
  exchangeVersions,
  type ExchangeFile,
  type ExchangeOutcome,
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
  readonly status: 'read' | 'accepted';
  readonly readBy: string;
  readonly readAt: string;
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
}

export interface ExchangeRowsReply {
  readonly rows: readonly PlannedExchangeRow[];
  readonly total: number;
}
