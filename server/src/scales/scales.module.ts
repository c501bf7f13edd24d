import { Module } from '@nestjs/common';
import { PeriodsRepository } from '#server/calendar';
import { LogModule } from '#server/log';
import { ReportItemsModule } from '#server/report-items';
import { ScalesController } from './scales.controller.js';
import { ScalesRepository } from './scales.repository.js';
import { ScalesService } from './scales.service.js';

@Module({
  imports: [LogModule, ReportItemsModule],
  controllers: [ScalesController],
  providers: [PeriodsRepository, ScalesRepository, ScalesService],
})
export class ScalesModule {}
