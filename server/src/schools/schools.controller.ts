import { Body, Controller, Post } from '@nestjs/common';
import { OpenSchoolRequest, type OpenedSchoolReply } from '#contract/schools';
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
}
