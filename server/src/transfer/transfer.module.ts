import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { LogModule } from '#server/log';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { DirectoryRepository } from './directory.repository.js';
import { FileImportsController } from './file-imports.controller.js';
import { FileImportsRepository } from './file-imports.repository.js';
import { FileImportsService } from './file-imports.service.js';
import { FilePreviewService } from './file-preview.service.js';

@Module({
  imports: [CalendarModule, LogModule, PostingModule, ReportItemsModule],
  controllers: [FileImportsController],
  providers: [DirectoryRepository, FileImportsRepository, FileImportsService, FilePreviewService],
})
export class TransferModule {}
