import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { PlacementsRepository } from './placements.repository.js';
import { ScalePlaceThing } from './scale-place.thing.js';
import { ScalePlacing } from './scale-placing.service.js';

/** Where which scale is in force: read by courses, items and scales alike, and so a room below them. */
@Module({
  imports: [CalendarModule, ChangesModule],
  providers: [PlacementsRepository, ScalePlaceThing, ScalePlacing],
  exports: [PlacementsRepository, ScalePlacing],
})
export class PlacementsModule {}
