import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { ChangesModule } from '#server/changes';
import { ExchangeController } from './exchange.controller.js';
import { ExchangeImportsRepository } from './exchange-imports.repository.js';
import { ExchangeService } from './exchange.service.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';
import { WriteRowsService } from './write-rows.service.js';

@Module({
  imports: [PeriodViewModule, CalculationModule, ChangesModule],
  controllers: [ExchangeController],
  providers: [ExchangeImportsRepository, ExchangeService, HeldRowsRepository, RosterFieldsRepository, WriteRowsService],
})
export class ExchangeModule {}
