import { formatDecimal, type Percent } from '#core/numbers';
import { cutBands, orderBands, type Band } from '#core/scales';
import { bandTint } from '../ui/band-tint';
import { showLabel } from '../ui/format';

/** The piece of the ruler around one percentage, or level, with a pointer at it; `top` is the highest value of the scale. */
export function RulerStrip({ bands, percent, top }: { bands: readonly Band[]; percent: Percent; top: number }) {
  const ordered = orderBands(cutBands(bands));
  const at = Number(formatDecimal(percent));
  const lowest = (index: number) => (ordered[index] ? Number(formatDecimal(ordered[index].lowest)) : top);
  const own = Math.max(
    0,
    ordered.findIndex((_band, index) => lowest(index) <= at),
  );
  const from = Math.max(0, Math.min(lowest(Math.min(ordered.length - 1, own + 1)), at - top * 0.03), at - top * 0.12);
  const to = Math.max(Math.min(top, own > 1 ? lowest(own - 2) : top), at + top * 0.01, from + top * 0.04);
  const place = (value: number) => ((Math.min(to, Math.max(from, value)) - from) / (to - from)) * 100;
  return (
    <svg viewBox="0 0 340 64" className="mt-3 w-full" role="img" aria-label={`${at} on the scale`}>
      {ordered.map((band, index) => {
        const [left, right] = [place(lowest(index)) * 3.4, place(index === 0 ? top : lowest(index - 1)) * 3.4];
        if (right - left < 1) return null;
        const { fill, ink } = bandTint(index, ordered.length, band.passes);
        return (
          <g key={band.label}>
            <rect x={left} y={18} width={right - left - 1} height={22} fill={fill} />
            {right - left > 22 && (
              <text x={(left + right) / 2} y={33} textAnchor="middle" fontSize="12" fontWeight="700" fill={ink}>
                {showLabel(band.label)}
              </text>
            )}
            {lowest(index) > from && (
              <text x={left} y={13} textAnchor="middle" fontSize="11" fill="var(--quiet)">
                {lowest(index)}
              </text>
            )}
          </g>
        );
      })}
      <path d={`M${place(at) * 3.4} 41l5 9h-10Z`} fill="var(--ink)" />
      <text
        x={Math.min(322, Math.max(18, place(at) * 3.4))}
        y={62}
        textAnchor="middle"
        fontSize="11"
        fontWeight="700"
        fill="var(--ink)"
      >
        {formatDecimal(percent)}
      </text>
    </svg>
  );
}
