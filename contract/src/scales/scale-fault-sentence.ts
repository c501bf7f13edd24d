import type { ScaleFault, ScaleFaultCode } from '#core/scales';
import { formatMessage } from '#contract/messages';

const sentences: Record<ScaleFaultCode, string> = {
  'scale-empty': 'A scale needs at least one band.',
  'label-empty': 'A band needs a label, such as B+.',
  'label-twice': '{label} is listed twice; each label may be used once.',
  'label-is-code': '{label} is a code as well; a grade typed so could be either. Choose another label.',
  'label-is-number': '{label} reads like a percentage; a grade typed so could be either. Choose a label such as B+.',
  'cut-off-missing': '{label} has no cut-off; give it one, or remove all of them where labels are only picked by hand.',
  'cut-off-twice': '{label} and {other} both begin at {lowest}; each cut-off may be used once.',
  'cut-off-outside': '{label} begins at {lowest}; a cut-off is from 0 to {top}.',
  'cut-off-out-of-order':
    '{label} begins at {lowest}, above {other} before it; once saved, it will be listed before it.',
  'band-unreachable':
    'No value can be {label}: rounded to {digits} decimals, none lies between {lowest} and the next cut-off.',
  'points-do-not-fall': '{label} carries {points} grade points, no fewer than {higher} above it.',
  'points-missing': '{label} carries no grade points, though other labels do; it would not count in a GPA.',
  'bottom-above-0': 'The lowest band, {label}, begins at {lowest}; values below have no label. Let it begin at 0.',
};

/** What is wrong with a scale and what would be right, for people. */
export function scaleFaultSentence({ code, data }: ScaleFault): string {
  return formatMessage(sentences[code], data);
}
