import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { compareDecimals, formatDecimal, fromDecimal, roundTo, type Percent } from '#core/numbers';
import { bandEdges, findBand } from '#core/scales';
import type { EntryRules } from '#core/posting';
import { counted } from '#contract/messages';
import { bodyOfMark, markInWords, type ComputedReply, type SheetReply } from '#contract/posting';
import { HistoryButton } from '../changes/history-button';
import { Awaited } from '../shell/awaited';
import { Button } from '../ui/button';
import { showDay, showInstant, showLabel, showPercent, showPrecision } from '../ui/format';
import { BookWorkings } from '../calculation/book/book-workings';
import { WorkingsSheet, type WorkingLine } from '../ui/workings-sheet';
import { CompositeWorkings, type OpenedPart } from './composite-workings';
import { RulerStrip } from './ruler-strip';
import { useSheet } from './queries';
import { entryRulesOf, sheetRows, type SheetRow } from './sheet-view';

/** How a student's computed and posted grade came about, each line with its source. */
export function MarkWorkings({ row, sheet, rules }: { row: SheetRow; sheet: SheetReply; rules: EntryRules }) {
  const { reply, mark, computed } = row;
  const [part, setPart] = useState<OpenedPart | null>(null);
  if (part)
    return (
      <div className="space-y-3">
        <Button look="quiet" className="-ml-3" onClick={() => setPart(null)}>
          <ArrowLeft size={14} aria-hidden /> {sheet.itemName}
        </Button>
        <PartWorkings part={part} sectionId={sheet.sectionId} enrollmentId={reply.enrollmentId} />
      </div>
    );
  const shown = mark.percent ?? computed;
  const found = shown ? findBand(rules.bands, shown, rules.precision) : undefined;
  const isAbove =
    computed !== null && sheet.highestLevel === null && compareDecimals(computed, rules.highestPercent) > 0;
  const edge = found?.band && bandEdges(rules.bands, rules.precision, 2).find(({ band }) => band === found.band);
  return (
    <div className="space-y-4">
      <h3 className="text-[17px] leading-snug font-bold">{reply.student}</h3>
      {reply.composite ? (
        <CompositeWorkings composite={reply.composite} sheet={sheet} rules={rules} onOpenPart={setPart} />
      ) : reply.computed?.file && computed ? (
        <section>
          <h4 className="mb-1.5 font-bold">Computed</h4>
          <WorkingsSheet lines={computedLines(reply.computed, computed, sheet, rules)} />
        </section>
      ) : reply.computed || reply.blockedBy.length > 0 ? (
        <BookWorkings sectionId={sheet.sectionId} periodId={sheet.period.id} enrollmentId={reply.enrollmentId} />
      ) : (
        <p className="text-quiet">Neither a file nor a grade book has brought a value for this student.</p>
      )}
      {shown && found && (
        <section>
          <h4 className="mb-1.5 font-bold">Label</h4>
          <WorkingsSheet
            lines={[
              {
                says: `${mark.percent ? 'Posted' : 'Computed'} ${sheet.highestLevel === null ? 'percent' : 'level'}`,
                figure: showPercent(formatDecimal(shown)),
                ...(isAbove ? { note: `${sheet.itemName} posts at most ${sheet.highestPercent}.` } : {}),
              },
              {
                says: `Rounded ${showPrecision(sheet.rounding, sheet.digits)}`,
                figure: formatDecimal(found.rounded),
              },
              ...(edge
                ? [
                    {
                      says: `Reaches the cut-off of ${showLabel(edge.band.label)}`,
                      figure: formatDecimal(edge.band.lowest),
                      note: `The first value in is ${formatDecimal(edge.firstValue)}.`,
                    },
                  ]
                : []),
              {
                says: `On ${sheet.scaleName}, version ${sheet.scaleVersion}`,
                figure: found.band ? showLabel(found.band.label) : 'no label',
                note: `Set by ${sheet.scaleFrom}.`,
                isResult: true,
              },
            ]}
          />
          <RulerStrip bands={rules.bands} percent={found.rounded} top={Number(sheet.highestLevel ?? 100)} />
        </section>
      )}
      {reply.attendance && reply.attendance.daysTaken > 0 && (
        <section>
          <h4 className="mb-1.5 font-bold">Attendance</h4>
          <p>
            Missed {reply.attendance.daysMissed} of {counted(reply.attendance.daysTaken, 'day')} taken in{' '}
            {sheet.period.name};{' '}
            {reply.attendance.lastPresent ? `last present ${showDay(reply.attendance.lastPresent)}` : 'present on none'}
            .
          </p>
        </section>
      )}
      <section>
        <h4 className="mb-1.5 font-bold">Posted</h4>
        <p>
          <b>{markInWords(bodyOfMark(mark))}</b>
          {row.isUnsaved
            ? ', not saved yet.'
            : reply.postedBy && reply.postedAt
              ? `, by ${reply.postedBy}, ${showInstant(reply.postedAt)}.`
              : '.'}
        </p>
        <div className="mt-2">
          <HistoryButton
            thing={`grade ${sheet.itemId}/${sheet.period.id}/${reply.enrollmentId}`}
            called={`the grade of ${reply.student}`}
          />
        </div>
      </section>
    </div>
  );
}

/** A part of a composite by its own sheet: what was posted there, and how it was computed. */
function PartWorkings({
  part,
  sectionId,
  enrollmentId,
}: {
  part: OpenedPart;
  sectionId: number;
  enrollmentId: number;
}) {
  const opened = useSheet({ sectionId, itemId: part.itemId, periodId: part.periodId });
  return (
    <Awaited query={opened} waiting={`Opening ${part.name}`}>
      {(sheet) => <PartOnSheet part={part} sheet={sheet} enrollmentId={enrollmentId} />}
    </Awaited>
  );
}

function PartOnSheet({ part, sheet, enrollmentId }: { part: OpenedPart; sheet: SheetReply; enrollmentId: number }) {
  const rules = entryRulesOf(sheet);
  const row = sheetRows(sheet, {}, rules).find((each) => each.reply.enrollmentId === enrollmentId);
  if (!row) return <p className="text-quiet">This student is not on the sheet of {part.name}.</p>;
  return (
    <>
      <p className="font-semibold text-quiet">{part.name}</p>
      <MarkWorkings row={row} sheet={sheet} rules={rules} />
    </>
  );
}

function computedLines(
  { percent, file }: ComputedReply,
  computed: Percent,
  sheet: SheetReply,
  { precision }: EntryRules,
): WorkingLine[] {
  const { fileName, fileRow, column, acceptedAt, acceptedBy } = file!;
  return [
    { says: 'As the file has it', figure: percent, note: `${fileName}, row ${fileRow}, column “${column}”` },
    { says: 'Imported', figure: '', note: `${showInstant(acceptedAt)}, by ${acceptedBy}` },
    {
      says: `Would be posted, rounded ${showPrecision(sheet.rounding, sheet.digits)}`,
      figure: formatDecimal(roundTo(fromDecimal(computed), precision.digits, precision.rounding)),
      isResult: true,
    },
  ];
}
