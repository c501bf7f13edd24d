/** How people write the kinds of periods that are counted, shortest last. */
const kinds = [
  ['quarter', 'qtr', 'q'],
  ['semester', 'sem', 's'],
  ['trimester', 'tri', 't'],
  ['term', 't'],
] as const;

/**
 * How the name of a period may stand in a heading, in small letters.
 * @example periodForms('Quarter 2') // ['quarter 2', 'quarter2', 'qtr 2', 'qtr2', 'q 2', 'q2']
 */
export function periodForms(name: string): string[] {
  const folded = name.toLowerCase().trim();
  const [, word, number] = /^(\p{L}+) (\d+)$/u.exec(folded) ?? [];
  const kind = kinds.find(([whole]) => whole === word);
  return kind ? kind.flatMap((form) => [`${form} ${number}`, `${form}${number}`]) : [folded];
}
