import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CoursesController } from './courses.controller.js';
import { CoursesRepository } from './courses.repository.js';
import { CoursesService } from './courses.service.js';
import { PlacementsRepository } from './placements.repository.js';

@Module({
  imports: [ChangesModule],
  controllers: [CoursesController],
  providers: [CoursesRepository, CoursesService, PlacementsRepository],
  exports: [CoursesRepository, PlacementsRepository],
})
export class CoursesModule {}
