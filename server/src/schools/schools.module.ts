import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { DistrictThing } from './district.thing.js';
import { SchoolThing } from './school.thing.js';
import { SchoolsController } from './schools.controller.js';
import { SchoolsService } from './schools.service.js';

@Module({
  imports: [ChangesModule],
  controllers: [SchoolsController],
  providers: [DistrictThing, SchoolThing, SchoolsService],
})
export class SchoolsModule {}
