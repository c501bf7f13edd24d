import { Body, Controller, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import {
  OpenSchoolRequest,
  RenameSchoolRequest,
  type OpenedSchoolReply,
  type SchoolNamesReply,
} from '#contract/schools';
import { CurrentActor, type Actor, May } from '#server/platform';
import { SchoolsService } from './schools.service.js';

@Controller('schools')
export class SchoolsController {
  constructor(private readonly schools: SchoolsService) {}

  @Post()
  @May('change-shared-set-up')
  open(@CurrentActor() actor: Actor, @Body() request: OpenSchoolRequest): Promise<OpenedSchoolReply> {
    return this.schools.open(actor, request);
  }

  /** What a school and the district are called. */
  @Get(':schoolId/names')
  @May('change-shared-set-up', { school: 'schoolId' })
  names(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<SchoolNamesReply> {
    return this.schools.namesOf(schoolId);
  }

  @Put(':schoolId/names')
  @May('change-shared-set-up', { school: 'schoolId' })
  rename(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: RenameSchoolRequest,
  ): Promise<SchoolNamesReply> {
    return this.schools.rename(actor, schoolId, request);
  }
}
