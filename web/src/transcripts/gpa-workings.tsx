import { compareDecimals, formatAtLeast, formatDecimal, roundHalfUp, roundTo, type Rational } from '#core/numbers';
import type { Gpa } from '#core/transcripts';
import { showLabel } from '../ui/format';
import { WorkingsSheet, type WorkingLine } from '../ui/workings-sheet';

/** A grade point average as a sum on paper: points times credits of every line, over the credits. */
export function GpaWorkings({ gpa, says }: { gpa: Gpa; says: string }) {
  const lines = gpa.lines.map(({ entry, points, addition, credits, addedCredits, product }): WorkingLine => {
    const added =
      addition.units > 0n
        ? `, and ${formatAtLeast(addition, 1)} for ${entry.level === 'honours' ? 'honours' : 'college level'} times ${formatAtLeast(addedCredits, 2)}${compareDecimals(addedCredits, credits) < 0 ? ', as additions are limited' : ''}`
        : '';
    return {
      says: entry.courseTitle,
      figure: exactText(product),
      note: `${showLabel(entry.mark)} is ${formatAtLeast(points, 1)} points times ${formatAtLeast(credits, 2)} credits${added}`,
    };
  });
  const left = gpa.leftOut.length;
  return (
    <div className="space-y-3">
      <h3 className="text-[17px] font-bold">{says}</h3>
      <WorkingsSheet
        lines={[
          ...lines,
          { says: 'Points times credits', figure: exactText(gpa.products), isResult: true },
          { says: 'over credits', figure: exactText(gpa.credits) },
          { says: 'GPA, rounded once', figure: gpa.value ? formatDecimal(gpa.value) : 'none', isResult: true },
        ]}
      />
      {left > 0 && (
        <p className="text-[13px] text-quiet">
          Not counted: {gpa.leftOut.map(({ courseTitle, mark }) => `${courseTitle} (${showLabel(mark)})`).join(', ')}.
          These carry no grade points, do not count in the GPA, or were taken again.
        </p>
      )}
    </div>
  );
}

/** Products of decimals are decimals, so six digits show them whole. */
function exactText(value: Rational): string {
  return formatAtLeast(roundTo(value, 6, roundHalfUp), 3);
}
