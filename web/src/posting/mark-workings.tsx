import { formatDecimal, fromDecimal, roundTo } from '#core/numbers';
import { bandEdges, findBand } from '#core/scales';
import type { EntryRules } from '#core/posting';
import { bodyOfMark, type SheetReply } from '#contract/posting';
import { showInstant, showLabel, showPercent, showPrecision } from '../ui/format';
import { WorkingsSheet, type WorkingLine } from '../ui/workings-sheet';
import { CompositeWorkings } from './composite-workings';
import { RulerStrip } from './ruler-strip';
import { showMark, type SheetRow } from './sheet-view';

/** How a student's computed and posted grade came about, each line with its source. */
export function MarkWorkings({ row, sheet, rules }: { row: SheetRow; sheet: SheetReply; rules: EntryRules }) {
  const { reply, mark, computed } = row;
  const shown = mark.percent ?? computed;
  const found = shown ? findBand(rules.bands, shown, rules.precision) : undefined;
  const edge = found?.band && bandEdges(rules.bands, rules.precision, 2).find(({ band }) => band === found.band);
  return (
    <div className="space-y-4">
      <h3 className="text-[17px] leading-snug font-bold">{reply.student}</h3>
      {reply.composite ? (
        <CompositeWorkings composite={reply.composite} sheet={sheet} rules={rules} />
      ) : reply.computed && computed ? (
        <section>
          <h4 className="mb-1.5 font-bold">Computed</h4>
          <WorkingsSheet lines={computedLines(row, sheet, rules)} />
        </section>
      ) : (
        <p className="text-quiet">No file has brought a computed percent for this student.</p>
      )}
      {shown && found && (
        <section>
          <h4 className="mb-1.5 font-bold">Label</h4>
          <WorkingsSheet
            lines={[
              { says: mark.percent ? 'Posted percent' : 'Computed percent', figure: showPercent(formatDecimal(shown)) },
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
                note: `In force because of ${sheet.scaleFrom}.`,
                isResult: true,
              },
            ]}
          />
          <RulerStrip bands={rules.bands} percent={found.rounded} />
        </section>
      )}
      <section>
        <h4 className="mb-1.5 font-bold">Posted</h4>
        <p>
          <b>{showMark(bodyOfMark(mark))}</b>
          {row.isUnsaved
            ? ', not saved yet.'
            : reply.postedBy && reply.postedAt
              ? `, by ${reply.postedBy}, ${showInstant(reply.postedAt)}.`
              : '.'}
        </p>
      </section>
    </div>
  );
}

function computedLines({ reply, computed }: SheetRow, sheet: SheetReply, { precision }: EntryRules): WorkingLine[] {
  const { percent, fileName, fileRow, column, acceptedAt, acceptedBy } = reply.computed!;
  return [
    { says: 'As the file has it', figure: percent, note: `${fileName}, row ${fileRow}, column “${column}”` },
    { says: 'Taken in', figure: '', note: `${showInstant(acceptedAt)}, by ${acceptedBy}` },
    {
      says: `Would be posted, rounded ${showPrecision(sheet.rounding, sheet.digits)}`,
      figure: formatDecimal(roundTo(fromDecimal(computed!), precision.digits, precision.rounding)),
      isResult: true,
    },
  ];
}
