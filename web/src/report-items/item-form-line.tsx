import { useId, type ReactNode } from 'react';
import { Choice } from '../ui/field';

/** A heading of the form with its sentence. */
export function Line({ title, children }: { title: string; children: ReactNode }) {
  const id = useId();
  return (
    <section aria-labelledby={id} className="border-t border-hairline pt-3">
      <h3 id={id} className="mb-1 text-[13px] font-semibold text-quiet">
        {title}
      </h3>
      <div className="leading-[1.9]">{children}</div>
    </section>
  );
}

/** A choice in a sentence of the form. */
export function Options<Value extends string>({
  label,
  value,
  values,
  words,
  onChange,
}: {
  label: string;
  value: Value;
  values: readonly Value[];
  words: Readonly<Record<Value, string>>;
  onChange: (event: { target: { value: string } }) => void;
}) {
  return (
    <Choice label={label} value={value} onChange={onChange}>
      {values.map((each) => (
        <option key={each} value={each}>
          {words[each]}
        </option>
      ))}
    </Choice>
  );
}
