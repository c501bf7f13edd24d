import { Module } from '@nestjs/common';
import { AttendanceModule } from '#server/attendance';
import { AuditRulesModule } from '#server/audit-rules';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { GradeRowsModule } from '#server/grade-rows';
import { CoursesModule } from '#server/courses';
import { MailModule } from '#server/mail';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { ArrivalsService } from './arrivals.service.js';
import { AuditController } from './audit.controller.js';
import { AuditRunsRepository } from './runs/audit-runs.repository.js';
import { AuditTasksRepository } from './runs/audit-tasks.repository.js';
import { AuditTasksService } from './runs/audit-tasks.service.js';
import { AuditWork } from './runs/audit-work.js';
import { PartLooker } from './runs/part-looker.service.js';
import { AuditService } from './audit.service.js';
import { CertificatePapersService } from './certificates/certificate-papers.service.js';
import { AuditStandingsService } from './certificates/audit-standings.service.js';
import { CertificatesRepository } from './certificates/certificates.repository.js';
import { CertificatesService } from './certificates/certificates.service.js';
import { DistributionsRepository } from './distributions.repository.js';
import { DistributionsService } from './distributions.service.js';
import { FindingNoteThing } from './settling/finding-note.thing.js';
import { FindingNotesRepository } from './settling/finding-notes.repository.js';
import { FindingNotesService } from './settling/finding-notes.service.js';
import { FindingNoticesRepository } from './settling/finding-notices.repository.js';
import { GoneFindingsService } from './gone-findings.service.js';
import { MendingService } from './settling/mending.service.js';
import { NightlyAuditThing } from './runs/nightly-audit.thing.js';
import { NightlyAuditsRepository } from './runs/nightly-audits.repository.js';
import { NightlyAuditsService } from './runs/nightly-audits.service.js';
import { RecheckService } from './runs/recheck.service.js';
import { RuleSettingsService } from './rule-settings.service.js';
import { SendFindingsService } from './settling/send-findings.service.js';
import { SectionFactsRepository } from './snapshots/section-facts.repository.js';
import { SectionFactsService } from './snapshots/section-facts.service.js';
import { SheetFindingsController } from './sheet-findings.controller.js';
import { SheetFindingsService } from './sheet-findings.service.js';
import { SnapshotService } from './snapshots/snapshot.service.js';
import { TouchedSectionsRepository } from './runs/touched-sections.repository.js';
import { WaiverThing } from './settling/waiver.thing.js';
import { WaiversRepository } from './settling/waivers.repository.js';
import { WaiversService } from './settling/waivers.service.js';

@Module({
  imports: [
    AttendanceModule,
    AuditRulesModule,
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    ChangesModule,
    CoursesModule,
    GradeRowsModule,
    MailModule,
    PostingModule,
    ReportItemsModule,
    ScalesModule,
  ],
  controllers: [AuditController, SheetFindingsController],
  providers: [
    ArrivalsService,
    AuditRunsRepository,
    AuditService,
    AuditStandingsService,
    AuditTasksRepository,
    AuditTasksService,
    AuditWork,
    PartLooker,
    CertificatePapersService,
    CertificatesRepository,
    CertificatesService,
    DistributionsRepository,
    DistributionsService,
    FindingNoteThing,
    FindingNotesRepository,
    FindingNotesService,
    FindingNoticesRepository,
    GoneFindingsService,
    MendingService,
    NightlyAuditThing,
    NightlyAuditsRepository,
    NightlyAuditsService,
    RecheckService,
    RuleSettingsService,
    SectionFactsRepository,
    SendFindingsService,
    SectionFactsService,
    SheetFindingsService,
    SnapshotService,
    TouchedSectionsRepository,
    WaiversRepository,
    WaiversService,
    WaiverThing,
  ],
  exports: [
    ArrivalsService,
    AuditRunsRepository,
    AuditStandingsService,
    AuditTasksService,
    CertificatesService,
    SnapshotService,
    WaiversService,
  ],
})
export class AuditModule {}
