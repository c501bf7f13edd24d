export { CertificatesService, doneOrThrow, type AuditStanding } from './certificates.service.js';
export { AuditModule } from './audit.module.js';
export type { AuditRun } from './audit-runs.repository.js';
export { AuditService } from './audit.service.js';
export { SnapshotService, type GradedRow, type PeriodSnapshot } from './snapshot.service.js';
