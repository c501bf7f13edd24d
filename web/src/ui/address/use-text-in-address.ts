import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { searchWith } from './search-with';

/** How long after the last key the address follows, in milliseconds. */
const rest = 200;

/**
 * A text typed into a search field and kept in the address. What stands in the field is its own, so that no key is lost
 * however fast one types; a link or a step back that changes the address changes the field.
 */
export function useTextInAddress(name: string): readonly [text: string, onType: (text: string) => void] {
  const [search, setSearch] = useSearchParams();
  const addressed = search.get(name) ?? '';
  const [text, setText] = useState(addressed);
  const waiting = useRef<number | undefined>(undefined);
  useEffect(() => {
    if (waiting.current === undefined) setText(addressed);
  }, [addressed]);
  useEffect(() => () => window.clearTimeout(waiting.current), []);
  const onType = (typed: string) => {
    setText(typed);
    window.clearTimeout(waiting.current);
    waiting.current = window.setTimeout(() => {
      waiting.current = undefined;
      setSearch((before) => searchWith(before, { [name]: typed }), { replace: true });
    }, rest);
  };
  return [text, onType];
}
