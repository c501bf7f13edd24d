/** Countries whose way to write days and figures can be chosen; whoever lives elsewhere has it from the browser. */
export const locales = [
  'en-AU',
  'en-CA',
  'en-GB',
  'en-IE',
  'en-IN',
  'en-NZ',
  'en-US',
  'en-ZA',
  'de-DE',
  'es-ES',
  'es-MX',
  'fr-CA',
  'fr-FR',
  'it-IT',
  'nl-NL',
  'pl-PL',
  'pt-BR',
  'sv-SE',
] as const;

/** "English, United Kingdom" for en-GB. */
export function nameOfLocale(tag: string): string {
  const { language, region } = new Intl.Locale(tag);
  const of = (type: 'language' | 'region', code: string) => new Intl.DisplayNames('en', { type }).of(code) ?? code;
  return [of('language', language), ...(region ? [of('region', region)] : [])].join(', ');
}
