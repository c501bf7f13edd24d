import type { BandBody } from '#contract/scales';
import { showCount, showLabel } from '../../ui/format';
import { effectLabels, type Moves } from './effect-labels';

/** From which label to which, how many grades; what stays the same runs down the diagonal, quiet. */
export function EffectMatrix({ effect, bands }: { effect: Moves; bands: readonly BandBody[] }) {
  const labels = effectLabels(effect, bands);
  const shown = (label: string | null) => (label === null ? 'none' : showLabel(label));
  const grades = (from: string | null, to: string | null) =>
    effect.moves.find((move) => move.from === from && move.to === to)?.grades ?? 0;
  return (
    <table className="figures w-full table-fixed text-[12px]" style={{ minWidth: 52 + labels.length * 34 }}>
      <caption className="pb-1.5 text-left font-sans text-[13px] font-bold">
        From the label now, to the label it would have
      </caption>
      <thead>
        <tr>
          <th className="w-[52px] text-left font-sans font-semibold text-quiet">from</th>
          {labels.map((label) => (
            <th key={String(label)} className="pb-1 text-center">
              {shown(label)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {labels.map((from) => (
          <tr key={String(from)}>
            <th className="border-t border-hairline py-1 text-left">{shown(from)}</th>
            {labels.map((to) => {
              const count = grades(from, to);
              const look =
                count === 0 ? 'text-hairline' : from === to ? 'text-quiet' : 'bg-wattle-soft font-bold text-wattle';
              return (
                <td key={String(to)} className={`border-t border-hairline text-center ${look}`}>
                  {count === 0 ? '·' : showCount(count)}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
