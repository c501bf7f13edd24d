import type { ColumnReason, RowOutcome } from '#core/transfer';
import { IsInt, IsString, Length, Min, ValidateIf } from 'class-validator';

/** Megabytes of one file. */
export const largestFileMegabytes = 25;

export class ChooseColumnsRequest {
  @ValidateIf((choice: ChooseColumnsRequest) => choice.idColumn !== null)
  @IsInt()
  @Min(0)
  idColumn!: number | null;

  @ValidateIf((choice: ChooseColumnsRequest) => choice.gradeColumn !== null)
  @IsInt()
  @Min(0)
  gradeColumn!: number | null;

  @ValidateIf((choice: ChooseColumnsRequest) => choice.sectionId !== null)
  @IsInt()
  sectionId!: number | null;
}

export class AcceptImportRequest {
  /** The fingerprint of the preview that was looked at. */
  @IsString()
  @Length(64, 64)
  previewId!: string;
}

export interface ProposalReply {
  readonly column: number;
  /** 0 to 100. */
  readonly confidence: number;
  readonly reason: ColumnReason;
}

export interface FileImportReply {
  readonly id: number;
  readonly fileName: string;
  readonly byteSize: number;
  readonly encoding: string | null;
  readonly status: 'read' | 'accepted' | 'undone';
  readonly readBy: string;
  readonly readAt: string;
  readonly acceptedAt: string | null;
  readonly itemName: string;
  readonly periodName: string;
  readonly header: readonly string[];
  readonly sampleRows: readonly (readonly string[])[];
  readonly idColumn: number | null;
  readonly gradeColumn: number | null;
  readonly sectionId: number | null;
  readonly proposals: {
    readonly id: ProposalReply | null;
    readonly grade: ProposalReply | null;
    readonly section: { readonly sectionId: number; readonly confidence: number; readonly known: number } | null;
  };
  /** Null until both columns and the section are chosen. */
  readonly preview: PreviewReply | null;
}

export interface PreviewReply {
  readonly previewId: string;
  readonly counts: Readonly<Record<RowOutcome, number>>;
  readonly rows: readonly PreviewRowReply[];
  /** Students of the section who are not in the file. */
  readonly notInFile: readonly string[];
}

export interface PreviewRowReply {
  readonly row: number;
  readonly id: string;
  readonly name: string;
  readonly value: string;
  readonly outcome: RowOutcome;
  readonly before: string | null;
  readonly after: string | null;
  readonly sameAs: readonly number[];
}

export interface FileImportSummaryReply {
  readonly id: number;
  readonly fileName: string;
  readonly section: string | null;
  readonly status: 'read' | 'accepted' | 'undone';
  readonly readBy: string;
  readonly readAt: string;
  readonly written: number;
}
