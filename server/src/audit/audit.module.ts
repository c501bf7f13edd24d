import { Module } from '@nestjs/common';
import { AttendanceModule } from '#server/attendance';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { CoursesModule } from '#server/courses';
import { MailModule } from '#server/mail';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { AuditController } from './audit.controller.js';
import { AuditRunsRepository } from './audit-runs.repository.js';
import { AuditTasksRepository } from './audit-tasks.repository.js';
import { AuditWork } from './audit-work.js';
import { AuditService } from './audit.service.js';
import { CertificatePapersService } from './certificate-papers.service.js';
import { CertificatesRepository } from './certificates.repository.js';
import { CertificatesService } from './certificates.service.js';
import { DistributionsRepository } from './distributions.repository.js';
import { DistributionsService } from './distributions.service.js';
import { FindingNoticesRepository } from './finding-notices.repository.js';
import { MendingService } from './mending.service.js';
import { NightlyAuditThing } from './nightly-audit.thing.js';
import { NightlyAuditsRepository } from './nightly-audits.repository.js';
import { NightlyAuditsService } from './nightly-audits.service.js';
import { RuleSettingsThing, SharedRuleSettingsThing } from './rule-settings.thing.js';
import { RuleSettingsRepository } from './rule-settings.repository.js';
import { RuleSettingsService } from './rule-settings.service.js';
import { SendFindingsService } from './send-findings.service.js';
import { SectionFactsRepository } from './section-facts.repository.js';
import { SectionFactsService } from './section-facts.service.js';
import { SnapshotService } from './snapshot.service.js';
import { WaiverThing } from './waiver.thing.js';
import { WaiversRepository } from './waivers.repository.js';
import { WaiversService } from './waivers.service.js';

@Module({
  imports: [
    AttendanceModule,
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    ChangesModule,
    CoursesModule,
    MailModule,
    PostingModule,
    ReportItemsModule,
    ScalesModule,
  ],
  controllers: [AuditController],
  providers: [
    AuditRunsRepository,
    AuditService,
    AuditTasksRepository,
    AuditWork,
    CertificatePapersService,
    CertificatesRepository,
    CertificatesService,
    DistributionsRepository,
    DistributionsService,
    FindingNoticesRepository,
    MendingService,
    NightlyAuditThing,
    NightlyAuditsRepository,
    NightlyAuditsService,
    RuleSettingsRepository,
    RuleSettingsService,
    RuleSettingsThing,
    SectionFactsRepository,
    SendFindingsService,
    SharedRuleSettingsThing,
    SectionFactsService,
    SnapshotService,
    WaiversRepository,
    WaiversService,
    WaiverThing,
  ],
  exports: [AuditRunsRepository, AuditService, CertificatesService, SnapshotService, WaiversService],
})
export class AuditModule {}
