import { decimalOrThrow, formatDecimal, fromDecimal, roundTo } from '#core/numbers';
import type { EntryRules } from '#core/posting';
import type { CompositeReply, SheetReply } from '#contract/posting';
import { listed } from '#contract/messages';
import { showDecimal, showLabel, showPrecision } from '../ui/format';
import { WorkingsSheet } from '../ui/workings-sheet';

interface CompositeWorkingsProps {
  readonly composite: CompositeReply;
  readonly sheet: SheetReply;
  readonly rules: EntryRules;
  readonly onOpenPart: (part: OpenedPart) => void;
}

/** Where a part of a composite is posted. */
export interface OpenedPart {
  readonly name: string;
  readonly itemId: number;
  readonly periodId: number;
}

/** How a composite came about: each part with its value and its share, what was left out, and the sum. */
export function CompositeWorkings({ composite, sheet, rules, onOpenPart }: CompositeWorkingsProps) {
  return (
    <section>
      <h4 className="mb-1.5 font-bold">Made of its parts</h4>
      {composite.kind === 'missing' && <p>No value yet: {listed(composite.parts)} missing.</p>}
      {composite.kind === 'blocked' && (
        <p>
          {composite.by} is <b className="figures">{composite.code}</b>, so {sheet.itemName} is incomplete.
        </p>
      )}
      {composite.kind === 'exempt' && <p>No part counts: {composite.code}.</p>}
      {composite.kind === 'value' && (
        <WorkingsSheet
          lines={[
            ...composite.parts.map(({ value, weight, share, ...part }) => ({
              says: (
                <button
                  type="button"
                  className="text-left text-estuary hover:underline"
                  onClick={() => onOpenPart(part)}
                >
                  {part.name}
                </button>
              ),
              figure: showDecimal(value, 2),
              note: `counts ${showDecimal(share, 2)} of 100${Number(share) === Number(weight) ? '' : `, by its weight of ${showDecimal(weight, 0)}`}`,
            })),
            ...composite.leftOut.map(({ name, code }) => ({
              says: name,
              figure: code,
              note: 'not counted; the others share its weight',
            })),
            { says: 'Their mean', figure: composite.percent ?? composite.points ?? '' },
            ...(composite.rounded !== null
              ? [{ says: `Rounded ${showPrecision(sheet.rounding, sheet.digits)}`, figure: composite.rounded }]
              : []),
            composite.percent !== null
              ? {
                  says: `Rounded ${showPrecision(sheet.rounding, sheet.digits)}`,
                  figure: formatDecimal(
                    roundTo(
                      fromDecimal(decimalOrThrow(composite.percent)),
                      rules.precision.digits,
                      rules.precision.rounding,
                    ),
                  ),
                  isResult: true,
                }
              : {
                  says: 'The label with the most grade points not above that',
                  figure: composite.label ? showLabel(composite.label) : 'none',
                  isResult: true,
                },
          ]}
        />
      )}
    </section>
  );
}
