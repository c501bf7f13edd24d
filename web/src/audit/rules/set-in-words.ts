import { listed } from '#contract/messages';
import type { RuleSettingReply, RuleSettingsReply, SetRuleReply } from '#contract/audit';

type Named = Pick<RuleSettingsReply, 'courses'>;

/** What a rule leaves alone, by name; courses that are no longer there are nothing. */
export function exceptionsInWords({ exceptions }: SetRuleReply, { courses }: Named): string[] {
  const titles = exceptions.courses.flatMap((id) => courses.find((course) => course.id === id)?.title ?? []);
  return [...exceptions.departments, ...titles];
}

/**
 * What is set of a rule beside how severe it is, in a sentence for each place; nothing where it is as it comes.
 * @example setInWords(rule, settings) // ['In this school it begins at 40 instead of 30 and leaves Arts alone.']
 */
export function setInWords(rule: RuleSettingReply, settings: Named): string[] {
  const places = [
    ['In all schools', rule.district],
    ['In this school', rule.school],
  ] as const;
  return places.flatMap(([where, set]) => {
    const alone = exceptionsInWords(set, settings);
    const says = [
      ...(set.threshold !== null && rule.measure
        ? [`begins at ${set.threshold} instead of ${rule.measure.usual}`]
        : []),
      ...(alone.length > 0 ? [`leaves ${listed(alone)} alone`] : []),
    ];
    return says.length === 0 ? [] : [`${where} it ${says.join(' and ')}.`];
  });
}
