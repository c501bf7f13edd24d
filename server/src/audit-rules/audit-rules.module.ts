import { Module } from '@nestjs/common';
import { RuleSettingsRepository } from './rule-settings.repository.js';
import { RuleSettingsThing, SharedRuleSettingsThing } from './rule-settings.thing.js';

/** What the rules of the audit are set to do: where grades are posted, and where they are audited. */
@Module({
  providers: [RuleSettingsRepository, RuleSettingsThing, SharedRuleSettingsThing],
  exports: [RuleSettingsRepository],
})
export class AuditRulesModule {}
