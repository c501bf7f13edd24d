import { Body, Controller, Post } from '@nestjs/common';
import { OpenSchoolRequest, type OpenedSchoolReply } from '#contract/schools';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { SchoolsService } from './schools.service.js';

@Controller('schools')
@Allow(registrars)
export class SchoolsController {
  constructor(private readonly schools: SchoolsService) {}

  @Post()
  open(@CurrentActor() actor: Actor, @Body() request: OpenSchoolRequest): Promise<OpenedSchoolReply> {
    return this.schools.open(actor, request);
  }
}
