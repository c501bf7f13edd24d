import { compareDecimals, parseDecimal } from '#core/numbers';

/** A band as a score scale of the format has it; the lowest value in percent, as decimal text. */
export interface ScoreScaleBand {
  readonly label: string;
  readonly lowest: string;
}

/**
 * The bands of a score scale, the highest first: labels with a percent or a range of percents, as in
 * "{A:90-100},{B:80-89}". Undefined where nothing of that kind is there, or a label comes twice.
 */
export function readScoreScale(value: string): ScoreScaleBand[] | undefined {
  const bands = [...value.matchAll(/\{\s*([^:{}]+?)\s*:\s*([\d.]+)\s*(?:-\s*([\d.]+)\s*)?\}/g)].map(
    ([, label, one, other]) => {
      const [from, to] = [parseDecimal(one!), other === undefined ? undefined : parseDecimal(other)];
      const isDescending = from && to && compareDecimals(from, to) > 0;
      return { label: label!, lowest: isDescending ? other! : one! };
    },
  );
  const isWhole = bands.length > 0 && bands.every(({ lowest }) => isPercent(lowest));
  if (!isWhole || new Set(bands.map(({ label }) => label)).size < bands.length) return undefined;
  return bands.toSorted((a, b) => compareDecimals(parseDecimal(b.lowest)!, parseDecimal(a.lowest)!));
}

export function writeScoreScale(bands: readonly ScoreScaleBand[]): string {
  return bands.map(({ label, lowest }) => `{${label}:${lowest}}`).join(',');
}

/** A band with all that Wombat says of it, as its own column of a zip has it. */
export interface WholeBand extends ScoreScaleBand {
  readonly points: string | null;
  readonly passes: boolean;
  readonly earnsCredit: boolean;
  readonly descriptor: string;
}

/** The bands that our own column holds; undefined where it does not hold what Wombat wrote there. */
export function readWholeBands(text: string): WholeBand[] | undefined {
  let bands: unknown;
  try {
    bands = JSON.parse(text);
  } catch {
    return undefined;
  }
  return Array.isArray(bands) && bands.length > 0 && bands.every(isWholeBand) ? bands : undefined;
}

function isWholeBand(band: unknown): band is WholeBand {
  if (typeof band !== 'object' || band === null) return false;
  const { label, lowest, points, passes, earnsCredit, descriptor } = band as Record<string, unknown>;
  const isPoints = points === null || (typeof points === 'string' && /^-?\d{1,2}(\.\d{1,2})?$/.test(points));
  const isWords = typeof label === 'string' && label !== '' && typeof descriptor === 'string';
  return isWords && isPercent(lowest) && isPoints && typeof passes === 'boolean' && typeof earnsCredit === 'boolean';
}

function isPercent(text: unknown): text is string {
  return typeof text === 'string' && /^\d{1,3}(\.\d{1,2})?$/.test(text);
}
