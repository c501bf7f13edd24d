import { Children, Fragment, isValidElement, type ComponentProps, type ReactNode } from 'react';
import { Combobox, type Option } from './combobox';
import { textOfNode } from '../text-of-node';

/** A list that is longer is chosen from by typing. */
const mostToScan = 15;

/** What a choice tells: what was chosen, where a native event has it. */
export interface Chosen {
  readonly target: { readonly value: string };
}

export interface SelectProps extends Omit<ComponentProps<'select'>, 'onChange' | 'value'> {
  readonly value: string | number | undefined;
  readonly onChange: (event: Chosen) => void;
}

/** A choice from the `<option>`s within: the list of the system, or one to search where it is long. */
export function Select({ children, value, onChange, ...select }: SelectProps) {
  const options = optionsOf(children);
  if (options.length > mostToScan)
    return (
      <Combobox
        {...{ id: select.id, className: select.className, label: select['aria-label'], isDisabled: select.disabled }}
        isFaulty={select['aria-invalid'] === true}
        describedBy={select['aria-describedby']}
        options={options}
        value={String(value ?? '')}
        onChoose={(chosen) => onChange({ target: { value: chosen } })}
      />
    );
  return (
    <select value={value} onChange={onChange} {...select}>
      {children}
    </select>
  );
}

function optionsOf(children: ReactNode): Option[] {
  return Children.toArray(children).flatMap((child) => {
    if (!isValidElement<ComponentProps<'option'>>(child)) return [];
    if (child.type === Fragment || child.type === 'optgroup') return optionsOf(child.props.children);
    const text = textOfNode(child.props.children);
    return [{ value: String(child.props.value ?? text), text, isDisabled: child.props.disabled === true }];
  });
}
