import { formatDecimal, parseDecimal, unitsAt } from '#core/numbers';
import { sumOfWeights } from '#core/report-items';

/** A part of a whole, its weight as it is typed. */
export interface WeighedPart {
  readonly name: string;
  readonly weight: string;
  readonly fill: string;
  readonly ink: string;
}

interface WeightBarProps {
  readonly parts: readonly WeighedPart[];
  /** What it means that the weights do not make 100; null where that is no matter. */
  readonly onOff: (missing: string, isTooMuch: boolean) => string;
  readonly isAlarming?: boolean;
}

/** Parts as a bar that fills 100; what is lacking or too much stands at its end. */
export function WeightBar({ parts, onOff, isAlarming = true }: WeightBarProps) {
  const read = parts.map((part) => ({ ...part, read: parseDecimal(part.weight) }));
  const total = sumOfWeights(read.flatMap(({ read: weight }) => (weight ? [{ weight }] : [])));
  const hundred = unitsAt({ units: 100n, digits: 0 }, total.digits);
  const missing = hundred - total.units;
  const whole = Math.max(100, Number(formatDecimal(total)));
  const off = formatDecimal({ units: missing < 0n ? -missing : missing, digits: total.digits });
  return (
    <div>
      <div className="flex h-9 gap-px overflow-hidden rounded-md">
        {read.map(({ name, weight, read: value, fill, ink }, index) => {
          const share = value ? Math.max(0, Number(formatDecimal(value))) / whole : 0;
          return (
            <div
              key={index}
              style={{ width: `${share * 100}%`, background: fill, color: ink }}
              title={`${name}: ${weight}`}
              className="@container flex min-w-0 items-center overflow-hidden font-semibold whitespace-nowrap"
            >
              <span className="truncate pl-2.5 @max-[84px]:hidden">{name}</span>
              <span className="figures px-2">{shortWeight(weight)}</span>
            </div>
          );
        })}
        {missing > 0n && (
          <div
            style={{ width: `${(Number(missing) / Number(hundred)) * 100}%` }}
            className="hatched flex min-w-0 items-center justify-center rounded-r-md border border-wattle-fill"
          />
        )}
      </div>
      {missing !== 0n && (
        <p role="alert" className={`mt-1 text-[13px] ${isAlarming ? 'text-waratah' : 'text-wattle'}`}>
          {onOff(off, missing < 0n)}
        </p>
      )}
    </div>
  );
}

/** 40 for 40.00; what cannot be read stays as it was typed. */
export function shortWeight(weight: string): string {
  return weight.includes('.') ? weight.replace(/\.?0+$/, '') : weight;
}
