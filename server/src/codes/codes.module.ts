import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CodesController } from './codes.controller.js';
import { CodesRepository } from './codes.repository.js';
import { CodesService } from './codes.service.js';
import { CodesThing } from './codes.thing.js';

@Module({
  imports: [ChangesModule],
  controllers: [CodesController],
  providers: [CodesRepository, CodesService, CodesThing],
  exports: [CodesRepository],
})
export class CodesModule {}
