import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { ChangesModule } from '#server/changes';
import { ExchangeController } from './exchange.controller.js';
import { ExchangeImportsRepository } from './exchange-imports.repository.js';
import { ExchangePlans } from './exchange-plans.js';
import { ExchangeService } from './exchange.service.js';
import { ExchangeWorker } from './exchange-worker.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';

@Module({
  imports: [PeriodViewModule, CalculationModule, ChangesModule],
  controllers: [ExchangeController],
  providers: [
    ExchangeImportsRepository,
    ExchangeService,
    HeldRowsRepository,
    RosterFieldsRepository,
    ExchangePlans,
    ExchangeWorker,
  ],
})
export class ExchangeModule {}
