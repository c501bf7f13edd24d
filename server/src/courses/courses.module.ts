import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CalendarModule } from '#server/calendar';
import { PlacementsModule } from '#server/placements';
import { CourseDefaultsThing } from './course-defaults.thing.js';
import { CourseThing } from './course.thing.js';
import { CoursesController } from './courses.controller.js';
import { CoursesRepository } from './courses.repository.js';
import { CoursesService } from './courses.service.js';

@Module({
  imports: [CalendarModule, ChangesModule, PlacementsModule],
  controllers: [CoursesController],
  providers: [CourseDefaultsThing, CourseThing, CoursesRepository, CoursesService],
  exports: [CoursesRepository],
})
export class CoursesModule {}
