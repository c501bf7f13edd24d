export { AuditRulesModule } from './audit-rules.module.js';
export { RuleSettingsRepository } from './rule-settings.repository.js';
