import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CalendarModule } from '#server/calendar';
import { CourseDefaultsThing } from './course-defaults.thing.js';
import { CourseThing } from './course.thing.js';
import { ScalePlaceThing } from './scale-place.thing.js';
import { ScalePlacing } from './scale-placing.service.js';
import { CoursesController } from './courses.controller.js';
import { CoursesRepository } from './courses.repository.js';
import { CoursesService } from './courses.service.js';
import { PlacementsRepository } from './placements.repository.js';

@Module({
  imports: [CalendarModule, ChangesModule],
  controllers: [CoursesController],
  providers: [
    CourseDefaultsThing,
    CourseThing,
    ScalePlaceThing,
    ScalePlacing,
    CoursesRepository,
    CoursesService,
    PlacementsRepository,
  ],
  exports: [CoursesRepository, ScalePlacing, PlacementsRepository],
})
export class CoursesModule {}
