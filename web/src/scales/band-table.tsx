import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import type { BandBody } from '#contract/scales';
import { formatAtLeast, parseDecimal } from '#core/numbers';
import { showCount } from '../ui/format';
import type { ScaleView } from './use-scale-view';

interface BandTableProps {
  readonly view: ScaleView;
  readonly digits: number;
  readonly isReadOnly: boolean;
  readonly chosen: number | null;
  readonly onChoose: (place: number) => void;
  readonly onChange: (place: number, change: Partial<BandBody>) => void;
  /** Puts other bands in the place of all: one added, taken out or moved. */
  readonly onReplace: (bands: readonly BandBody[]) => void;
  /** What the server said of a field when the scale was saved. */
  readonly serverFault: (place: number, field: string) => string | undefined;
}

const cellLook =
  'h-[30px] w-full rounded-[3px] border border-transparent bg-transparent px-1.5 hover:border-hairline focus:border-control focus:bg-surface aria-invalid:border-waratah aria-invalid:bg-waratah-soft';
const smallButton =
  'rounded p-0.5 text-quiet enabled:hover:bg-eucalypt-soft enabled:hover:text-ink disabled:opacity-30';
const newBand: BandBody = {
  label: '',
  lowest: null,
  points: null,
  passes: true,
  earnsCredit: true,
  descriptor: '',
  isOff: false,
};

/** The bands as a table to type in; what is wrong with a field stands beneath its row. */
export function BandTable(props: BandTableProps) {
  const { view, isReadOnly, onReplace } = props;
  return (
    <>
      <fieldset disabled={isReadOnly}>
        <table className="w-full text-[13px]">
          <thead>
            <tr className="text-quiet [&_th]:h-8 [&_th]:px-1.5 [&_th]:font-semibold">
              <th className="w-[58px] text-center!">Label</th>
              <th className="w-[60px] text-right">From</th>
              <th className="w-[52px] text-right">To</th>
              <th className="w-[58px] text-right">Points</th>
              <th className="text-left">Descriptor</th>
              <th className="w-[56px] text-center!">Passes</th>
              <th className="w-[50px] text-center!" title="earns credit">
                Credit
              </th>
              <th className="w-[56px] text-center!" title="switched on">
                In use
              </th>
              <th className="w-[56px] text-right">Grades</th>
              {view.isDraft && <th className="w-[50px] text-right">Draft</th>}
              <th className="w-[62px]">
                <span className="sr-only">Order</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {view.typed.map((_band, place) => (
              <BandRow key={place} place={place} {...props} />
            ))}
          </tbody>
        </table>
      </fieldset>
      {!isReadOnly && (
        <button
          type="button"
          onClick={() => onReplace([...view.typed, newBand])}
          className="flex items-center gap-1.5 px-4 py-1.5 text-[13px] font-semibold text-eucalypt hover:underline"
        >
          <Plus size={14} aria-hidden /> Add a band
        </button>
      )}
    </>
  );
}

function BandRow({
  view,
  place,
  digits,
  chosen,
  onChoose,
  onChange,
  onReplace,
  serverFault,
}: BandTableProps & { place: number }) {
  const band = view.typed[place]!;
  const shift = view.shiftByPlace[place]!;
  const name = band.label || 'new band';
  const faultOf = (field: 'label' | 'lowest' | 'points') => view.fieldFault(place, field) ?? serverFault(place, field);
  const field = (key: 'label' | 'lowest' | 'points' | 'descriptor', label: string, align: string) => {
    const fault = key === 'descriptor' ? undefined : faultOf(key);
    return (
      <input
        aria-label={`${label} of ${name}`}
        aria-invalid={fault !== undefined}
        title={fault}
        value={band[key] ?? ''}
        onFocus={() => onChoose(place)}
        onChange={(event) => onChange(place, { [key]: event.target.value })}
        onBlur={() => {
          if (key === 'lowest' && band.lowest) onChange(place, { lowest: normal(band.lowest, digits) });
          if (key === 'points' && band.points) onChange(place, { points: normal(band.points, 1) });
        }}
        className={`${cellLook} ${align}`}
      />
    );
  };
  const check = (key: 'passes' | 'earnsCredit' | 'isOff', label: string, isChecked: boolean) => (
    <input
      type="checkbox"
      aria-label={`${name} ${label}`}
      checked={isChecked}
      onChange={(event) => onChange(place, { [key]: key === 'isOff' ? !event.target.checked : event.target.checked })}
      className="size-3.5 accent-eucalypt"
    />
  );
  const faults = [...new Set((['label', 'lowest', 'points'] as const).flatMap((key) => faultOf(key) ?? []))];
  const moved = (by: -1 | 1) => {
    const rest = view.typed.toSpliced(place, 1);
    rest.splice(place + by, 0, band);
    onReplace(rest);
  };
  return (
    <>
      <tr
        className={`border-t border-hairline [&_td]:px-0.5 ${chosen === place ? 'bg-eucalypt-soft' : ''} ${band.isOff ? 'text-quiet [&_input]:line-through' : ''}`}
      >
        <td className="figures">{field('label', 'Label', 'text-center font-bold')}</td>
        <td className="figures">{field('lowest', 'Cut-off', 'text-right')}</td>
        <td className="figures pr-2! text-right text-quiet">{view.upperByPlace[place]}</td>
        <td className="figures">{field('points', 'Grade points', 'text-right')}</td>
        <td>{field('descriptor', 'Descriptor', '')}</td>
        <td className="text-center">{check('passes', 'passes', band.passes)}</td>
        <td className="text-center">{check('earnsCredit', 'earns credit', band.earnsCredit)}</td>
        <td className="text-center">{check('isOff', 'is in use', !band.isOff)}</td>
        <td className="figures pr-2! text-right">{showCount(view.gradesByPlace[place]!)}</td>
        {view.isDraft && (
          <td className={`figures pr-2! text-right ${shift === 0 ? 'text-quiet' : 'font-bold text-wattle'}`}>
            {shift === 0 ? '–' : shift > 0 ? `+${shift}` : `−${-shift}`}
          </td>
        )}
        <td className="text-right whitespace-nowrap">
          <button
            type="button"
            aria-label={`Move ${name} up`}
            disabled={place === 0}
            onClick={() => moved(-1)}
            className={smallButton}
          >
            <ArrowUp size={13} />
          </button>
          <button
            type="button"
            aria-label={`Move ${name} down`}
            disabled={place === view.typed.length - 1}
            onClick={() => moved(1)}
            className={smallButton}
          >
            <ArrowDown size={13} />
          </button>
          <button
            type="button"
            aria-label={`Remove ${name}`}
            onClick={() => onReplace(view.typed.toSpliced(place, 1))}
            className={smallButton}
          >
            <Trash2 size={13} />
          </button>
        </td>
      </tr>
      {faults.length > 0 && (
        <tr>
          <td colSpan={11} className="px-3 pb-1.5 text-[12px] text-waratah">
            <span role="alert">{faults.join(' ')}</span>
          </td>
        </tr>
      )}
    </>
  );
}

/** "89.5" where "89.50" or "89.5 " was typed; what cannot be read is left for its owner to mend. */
function normal(text: string, digits: number): string {
  const value = parseDecimal(text.trim().replace(',', '.'));
  return value ? formatAtLeast(value, digits) : text;
}
