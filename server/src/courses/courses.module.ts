import { Module } from '@nestjs/common';
import { LogModule } from '#server/log';
import { CoursesController } from './courses.controller.js';
import { CoursesRepository } from './courses.repository.js';
import { CoursesService } from './courses.service.js';
import { PlacementsRepository } from './placements.repository.js';

@Module({
  imports: [LogModule],
  controllers: [CoursesController],
  providers: [CoursesRepository, CoursesService, PlacementsRepository],
  exports: [CoursesRepository, PlacementsRepository],
})
export class CoursesModule {}
