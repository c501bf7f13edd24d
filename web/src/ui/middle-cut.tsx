/** As many characters at the end stay in sight. */
const longestEnd = 12;

/**
 * A name on one line that is cut in its middle where it is too long, as names often differ only at their end: "Chart and
 * Comp… (3)". Whole on hover.
 */
export function MiddleCut({ text }: { text: string }) {
  const [start, end] = endOf(text);
  return (
    <span title={text} className="flex min-w-0">
      <span className="truncate">{start}</span>
      {end !== '' && <span className="shrink-0 whitespace-pre">{end}</span>}
    </span>
  );
}

/**
 * A name before and from its end on, which begins with a word where it can.
 *
 * @example endOf('Chart and Compass Mathematics (3)') // ['Chart and Compass Mathematics', ' (3)']
 */
export function endOf(text: string): readonly [start: string, end: string] {
  if (text.length <= longestEnd + 4) return [text, ''];
  const tail = text.slice(-longestEnd);
  const space = tail.indexOf(' ');
  const at = text.length - (space === -1 ? longestEnd / 2 : longestEnd - space);
  return [text.slice(0, at), text.slice(at)];
}
