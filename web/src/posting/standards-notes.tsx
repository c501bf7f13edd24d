import { useMemo } from 'react';
import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { SheetFindings } from '../audit/sheet-findings';
import { RequestNote } from './request-note';
import { requestsOf, type StandardsRequest } from './standards-requests';

interface StandardsNotesProps {
  readonly sheets: readonly SheetReply[];
  readonly onPutOnSheet: (request: StandardsRequest) => void;
  readonly onAnswer: (request: StandardsRequest, state: 'declined' | 'withdrawn', text: string) => void;
  /** Goes to a student of the sheet, in the column of a standard. */
  readonly onCell: (enrollmentId: number, itemId: number | null) => void;
}

/** What is to be known of the standards of a section before anything is typed: what is asked for, and what the audit found. */
export function StandardsNotes({ sheets, onPutOnSheet, onAnswer, onCell }: StandardsNotesProps) {
  const [first] = sheets as [SheetReply];
  const items = useMemo(() => new Map(sheets.map(({ itemId, itemName }) => [itemId, itemName])), [sheets]);
  const names = useMemo(() => new Map(first.rows.map((row) => [row.enrollmentId, row.student])), [first]);
  return (
    <>
      {requestsOf(sheets).map((request) => (
        <RequestNote
          key={request.asked[0]!.id}
          request={request}
          what={inWords(request)}
          onPutOnSheet={() => onPutOnSheet(request)}
          onAnswer={(state, text) => onAnswer(request, state, text)}
        />
      ))}
      <SheetFindings
        periodId={first.period.id}
        sectionId={first.sectionId}
        items={items}
        nameOf={names}
        onStudent={onCell}
      />
    </>
  );
}

function inWords({ asked }: StandardsRequest): string {
  const grades = asked.reduce((sum, { changes }) => sum + changes.length, 0);
  return `${counted(grades, 'grade')} of ${counted(asked.length, 'standard')}`;
}
