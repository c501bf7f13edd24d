import { Module } from '@nestjs/common';
import { PeriodsRepository } from '#server/calendar';
import { LogModule } from '#server/log';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { ScalesRepository } from '#server/scales';
import { AuditController } from './audit.controller.js';
import { AuditRunsRepository } from './audit-runs.repository.js';
import { AuditService } from './audit.service.js';
import { SnapshotService } from './snapshot.service.js';

@Module({
  imports: [LogModule, PostingModule, ReportItemsModule],
  controllers: [AuditController],
  providers: [AuditRunsRepository, AuditService, PeriodsRepository, ScalesRepository, SnapshotService],
  exports: [AuditRunsRepository, AuditService, SnapshotService],
})
export class AuditModule {}
