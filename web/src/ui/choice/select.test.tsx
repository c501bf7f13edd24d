import { screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { showAt } from '../../../test/show-at.fixture';
import { SelectField } from '../field';
import { hasWords } from './has-words';

const sections = Array.from({ length: 40 }, (_none, at) => `Harbour History · section ${at + 1}`);

function Page({ options, told }: { options: readonly string[]; told?: string[] }) {
  const [value, setValue] = useState('');
  return (
    <SelectField
      label="Section"
      value={value}
      fault={value === '3' ? 'It is sealed.' : undefined}
      onChange={({ target }) => {
        told?.push(target.value);
        setValue(target.value);
      }}
    >
      <option value="">none</option>
      <optgroup label="Ours">
        {options.map((name, at) => (
          <option key={name} value={at} disabled={at === 5}>
            {name}
          </option>
        ))}
      </optgroup>
    </SelectField>
  );
}

const box = () => screen.getByRole('combobox', { name: 'Section' });
const offered = () => screen.queryAllByRole('option').map(({ textContent }) => textContent);

describe('a choice', () => {
  it('from a short list is one of the system', async () => {
    const told: string[] = [];
    const { person } = showAt(<Page options={sections.slice(0, 3)} told={told} />);
    expect(box().tagName).toBe('SELECT');
    await person.selectOptions(box(), sections[1]!);
    expect(told).toEqual(['1']);
  });

  it('from a long list is found by typing beginnings of words, and taken by Enter', async () => {
    const told: string[] = [];
    const { person } = showAt(<Page options={sections} told={told} />);
    box().focus();
    await person.keyboard('h');
    await person.keyboard('arb sec 3');
    expect(offered()).toEqual([2, 29, 30, 31, 32, 33, 34, 35, 36, 37, 38].map((at) => sections[at]));
    await person.keyboard('{ArrowDown}{Enter}');
    expect(told).toEqual(['29']);
    expect(offered()).toEqual([]);
    expect(box().textContent).toBe(sections[29]);
  });

  it('stays as it was by Esc, and what cannot be chosen is not', async () => {
    const told: string[] = [];
    const { person } = showAt(<Page options={sections} told={told} />);
    await person.click(box());
    expect(offered()).toHaveLength(41);
    await person.keyboard('section 6{Enter}');
    expect(told).toEqual([]);
    await person.keyboard('{Escape}');
    expect([offered(), told]).toEqual([[], []]);
    await person.click(box());
    await person.keyboard('nothing like it');
    expect(screen.getByText('Nothing matches.').textContent).toBe('Nothing matches.');
  });

  it('says what is wrong with it', async () => {
    const { person } = showAt(<Page options={sections} />);
    await person.click(box());
    await person.keyboard('section 4{Enter}');
    expect(box().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(box().getAttribute('aria-describedby')!)?.textContent).toBe('It is sealed.');
  });
});

it.each([
  ['Making, year 1 · section 2', 'sec mak', true],
  ['Making, year 1 · section 2', '', true],
  ['Making, year 1 · section 2', 'aking', false],
  ['Élan Õie', 'elan oi', true],
  ['2025–26', '26', true],
])('%s has the words of “%s”: %s', (text, searched, has) => expect(hasWords(text, searched)).toBe(has));
