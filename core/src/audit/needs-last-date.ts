import type { SpecialCode } from '#core/codes';
import type { GradeFact } from './snapshot.js';

/** Whether what is posted needs a last date of attendance: by its code, or as a failing label where aid depends on it. */
export function needsLastDate(
  {
    mark,
    item,
    scale,
  }: Pick<GradeFact, 'mark' | 'scale'> & { readonly item: Pick<GradeFact['item'], 'failingNeedsLastDate'> },
  codes: ReadonlyMap<string, SpecialCode>,
): boolean {
  const { label, code } = mark;
  if (code !== null) return codes.get(code)?.needsLastDate === true;
  const band = scale.bands.find((each) => each.label === label);
  return item.failingNeedsLastDate && band !== undefined && !band.passes;
}
