export { CertificatesService } from './certificates.service.js';
export { AuditModule } from './audit.module.js';
export { AuditRunsRepository, effectIn, type AuditRun } from './audit-runs.repository.js';
export { AuditService } from './audit.service.js';
export { WaiversService } from './waivers.service.js';
export { SnapshotService, type GradedRow, type PeriodSnapshot } from './snapshot.service.js';
