import { percentFault } from './policy-drafts';

interface NumberInSentenceProps {
  readonly label: string;
  readonly value: string | null;
  /** What stands there while it is empty; without it something has to be typed. */
  readonly empty?: string;
  readonly onChange: (text: string | null) => void;
}

/** A number to type inside a sentence or a table, with what is wrong beneath it. */
export function NumberInSentence({ label, value, empty, onChange }: NumberInSentenceProps) {
  const fault = percentFault(value);
  return (
    <span className="relative inline-block">
      <input
        aria-label={label}
        aria-invalid={fault !== undefined}
        inputMode="decimal"
        value={value ?? ''}
        placeholder={empty}
        size={Math.max(value?.length ?? 0, empty?.length ?? 0, 3)}
        onChange={(event) => {
          const text = event.target.value.trim().replace(',', '.');
          onChange(text === '' && empty !== undefined ? null : text);
        }}
        className="figures border-0 border-b-2 border-dotted border-eucalypt bg-transparent px-0.5 text-center font-bold text-eucalypt placeholder:font-sans placeholder:font-normal placeholder:text-quiet hover:border-solid aria-invalid:border-waratah aria-invalid:text-waratah"
      />
      {fault && (
        <span
          role="alert"
          className="absolute top-full left-0 z-20 rounded-md border border-waratah bg-surface px-2 py-0.5 text-[12px] leading-snug whitespace-nowrap text-waratah shadow-float"
        >
          {fault}
        </span>
      )}
    </span>
  );
}
