import type { BandBody } from '#contract/scales';
import { formatAtLeast, parseDecimal } from '#core/numbers';
import { showCount } from '../ui/format';
import type { ScaleView } from './use-scale-view';

interface BandTableProps {
  readonly view: ScaleView;
  readonly digits: number;
  readonly chosen: number | null;
  readonly onChoose: (place: number) => void;
  readonly onChange: (place: number, change: Partial<BandBody>) => void;
  /** What the server said of a field when the scale was saved. */
  readonly serverFault: (place: number, field: string) => string | undefined;
}

const cellLook =
  'h-[30px] w-full rounded-[3px] border border-transparent bg-transparent px-1.5 hover:border-hairline focus:border-control focus:bg-surface aria-invalid:border-waratah aria-invalid:bg-waratah-soft';

/** The bands as a table to type in; what is wrong with a field stands beneath its row. */
export function BandTable({ view, digits, chosen, onChoose, onChange, serverFault }: BandTableProps) {
  return (
    <table className="w-full text-[13px]">
      <thead>
        <tr className="text-quiet [&_th]:h-8 [&_th]:px-2 [&_th]:font-semibold">
          <th className="w-[72px] text-center!">Label</th>
          <th className="w-[76px] text-right">From</th>
          <th className="w-[64px] text-right">To</th>
          <th className="w-[68px] text-right">Points</th>
          <th className="text-left">Descriptor</th>
          <th className="w-[58px] text-center!">Passes</th>
          <th className="w-[62px] text-right">Grades</th>
          <th className="w-[56px] text-right">Draft</th>
        </tr>
      </thead>
      <tbody>
        {view.typed.map((band, place) => {
          const shift = view.shiftByPlace[place]!;
          const field = (name: 'label' | 'lowest' | 'points', align: string) => {
            const fault = view.fieldFault(place, name) ?? serverFault(place, name);
            return (
              <input
                aria-label={`${name === 'lowest' ? 'Cut-off' : name === 'points' ? 'Grade points' : 'Label'} of ${band.label || 'band'}`}
                aria-invalid={fault !== undefined}
                title={fault}
                value={band[name] ?? ''}
                onFocus={() => onChoose(place)}
                onChange={(event) => onChange(place, { [name]: event.target.value })}
                onBlur={() => name === 'lowest' && onChange(place, { lowest: normal(band.lowest, digits) })}
                className={`${cellLook} ${align} ${name === 'label' ? 'font-bold' : ''}`}
              />
            );
          };
          const faults = (['label', 'lowest', 'points'] as const).flatMap(
            (name) => view.fieldFault(place, name) ?? serverFault(place, name) ?? [],
          );
          return [
            <tr
              key={place}
              className={`border-t border-hairline [&_td]:px-1 ${chosen === place ? 'bg-eucalypt-soft' : ''}`}
            >
              <td className="figures">{field('label', 'text-center')}</td>
              <td className="figures">{field('lowest', 'text-right')}</td>
              <td className="figures pr-2.5! text-right text-quiet">{view.upperByPlace[place]}</td>
              <td className="figures">{field('points', 'text-right')}</td>
              <td>
                <input
                  aria-label={`Descriptor of ${band.label}`}
                  value={band.descriptor}
                  onFocus={() => onChoose(place)}
                  onChange={(event) => onChange(place, { descriptor: event.target.value })}
                  className={cellLook}
                />
              </td>
              <td className="text-center">
                <input
                  type="checkbox"
                  aria-label={`${band.label} passes`}
                  checked={band.passes}
                  onChange={(event) =>
                    onChange(place, { passes: event.target.checked, earnsCredit: event.target.checked })
                  }
                  className="size-3.5 accent-eucalypt"
                />
              </td>
              <td className="figures pr-2.5! text-right">{showCount(view.gradesByPlace[place]!)}</td>
              <td className={`figures pr-2.5! text-right ${shift === 0 ? 'text-quiet' : 'font-bold text-wattle'}`}>
                {shift === 0 ? '–' : shift > 0 ? `+${shift}` : `−${-shift}`}
              </td>
            </tr>,
            faults.length > 0 && (
              <tr key={`${place} fault`}>
                <td colSpan={8} role="alert" className="px-3 pb-1.5 text-[12px] text-waratah">
                  {faults.join(' ')}
                </td>
              </tr>
            ),
          ];
        })}
      </tbody>
    </table>
  );
}

/** "89.5" where "89.50" or "89.5 " was typed; what cannot be read is left for its owner to mend. */
function normal(text: string, digits: number): string {
  const value = parseDecimal(text);
  return value ? formatAtLeast(value, digits) : text;
}
