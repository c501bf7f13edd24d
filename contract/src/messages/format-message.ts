import { IntlMessageFormat, type Formatters } from 'intl-messageformat';

/** What the words in braces of a message stand for. */
export type MessageValues = Readonly<Record<string, string | number>>;

/** Messages are English; the figures in them are written as the reader writes them. */
const language = 'en';
const formatters: Formatters = {
  getNumberFormat: (_locale, options) => new Intl.NumberFormat(undefined, options),
  getDateTimeFormat: (_locale, options) => new Intl.DateTimeFormat(undefined, options),
  getPluralRules: (locale, options) => new Intl.PluralRules(locale, options),
};

const read = new Map<string, IntlMessageFormat>();

/**
 * A message (ICU MessageFormat) with its words filled in. A word without a value is a bug.
 *
 * @throws Error for a message that cannot be read, or that lacks a value
 * @example formatMessage('{count, plural, one {# course} other {# courses}} of {school}', { count: 2, school: 'Shore School' }) // '2 courses of Shore School'
 */
export function formatMessage(message: string, values: MessageValues): string {
  let format = read.get(message);
  if (!format) {
    format = new IntlMessageFormat(message, language, undefined, { formatters, ignoreTag: true });
    read.set(message, format);
  }
  return String(format.format({ ...values }));
}
