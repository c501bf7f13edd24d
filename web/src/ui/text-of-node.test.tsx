import { expect, it } from 'vitest';
import { MiddleCut } from './middle-cut';
import { textOfNode } from './text-of-node';

const Own = () => <b>made up</b>;

it.each([
  ['a text', 'Knots', 'Knots'],
  ['a number', 7, '7'],
  ['nothing', null, ''],
  ['a truth', true, ''],
  ['texts beside each other', ['Quarter 2', ', ', 'sealed'], 'Quarter 2, sealed'],
  [
    'elements, each as words of its own',
    <>
      <b>Knots</b>
      <i>PEU138</i>
    </>,
    'Knots PEU138',
  ],
  ['a component that is given its text', <MiddleCut key="x" text="Shore Life 3" />, 'Shore Life 3'],
  ['a component that makes it up', <Own key="x" />, ''],
])('%s', (_what, node, text) => expect(textOfNode(node).replaceAll(/\s+/g, ' ').trim()).toBe(text));
