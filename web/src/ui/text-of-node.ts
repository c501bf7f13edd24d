import { Children, isValidElement, type ReactNode } from 'react';

/**
 * What a person reads of a node: texts as they stand, what stands in elements of their own as words of its own. A component
 * shows what it was given to show (its children or its `text`); what it makes up itself is not known.
 *
 * @example textOfNode(<>Knots <b>PEU138</b></>) // 'Knots  PEU138 '
 */
export function textOfNode(node: ReactNode): string {
  return Children.toArray(node)
    .map((child) => {
      if (typeof child === 'string' || typeof child === 'number') return String(child);
      if (!isValidElement<{ readonly children?: ReactNode; readonly text?: string }>(child)) return '';
      return ` ${child.props.text ?? textOfNode(child.props.children)} `;
    })
    .join('');
}
