import { formatAtLeast, formatDecimal } from '#core/numbers';
import { bandEdges, type Band, type Precision } from '#core/scales';
import { showLabel } from '../ui/format';

/** Digits of the values shown at the edges: as many as a posted percent may have. */
const valueDigits = 2;

/** What falls on either side of each cut-off once values are rounded. */
export function EdgesTable({
  bands,
  precision,
  chosen,
}: {
  bands: readonly Band[];
  precision: Precision;
  chosen: string | undefined;
}) {
  const edges = bandEdges(bands, precision, valueDigits).filter(({ below }) => below !== undefined);
  return (
    <table className="w-full text-[13px]">
      <caption className="px-4 pt-2.5 pb-1 text-left font-bold">At the edges</caption>
      <thead>
        <tr className="text-quiet [&_th]:px-2 [&_th]:py-1 [&_th]:font-semibold">
          <th className="pl-4! text-left">Cut-off</th>
          <th colSpan={2} className="text-right">
            Last below
          </th>
          <th colSpan={2} className="pr-4! text-right">
            First in
          </th>
        </tr>
      </thead>
      <tbody className="figures">
        {edges.map(({ band, below, firstValue, lastBelow }) => (
          <tr
            key={band.label}
            className={`border-t border-hairline [&_td]:px-2 [&_td]:py-[3px] ${band.label === chosen ? 'bg-eucalypt-soft' : ''}`}
          >
            <td className="pl-4! font-bold">{formatAtLeast(band.lowest, precision.digits)}</td>
            <td className="text-right">{formatDecimal(lastBelow)}</td>
            <td className="w-8 text-quiet">{showLabel(below!.label)}</td>
            <td className="text-right">{formatDecimal(firstValue)}</td>
            <td className="w-10 pr-4! font-bold">{showLabel(band.label)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
