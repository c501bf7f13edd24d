export { ArrivalsService } from './arrivals.service.js';
export { AuditStandingsService, doneOrThrow, type AuditStanding } from './certificates/audit-standings.service.js';
export { CertificatesService, type SealCertificates } from './certificates/certificates.service.js';
export { AuditModule } from './audit.module.js';
export { AuditRunsRepository, type AuditRun } from './runs/audit-runs.repository.js';
export { AuditTasksService } from './runs/audit-tasks.service.js';
export { RecheckService } from './runs/recheck.service.js';
export type { GradedRow } from './snapshots/grade-fact-of.js';
export { SnapshotService, type PeriodSnapshot } from './snapshots/snapshot.service.js';
