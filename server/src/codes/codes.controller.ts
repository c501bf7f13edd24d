import { Body, Controller, Get, Put } from '@nestjs/common';
import { SaveCodesRequest, type CodesReply } from '#contract/codes';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { CodesService } from './codes.service.js';

@Controller('codes')
@Allow(registrars)
export class CodesController {
  constructor(private readonly codes: CodesService) {}

  @Get()
  list(): Promise<CodesReply> {
    return this.codes.list();
  }

  @Put()
  save(@CurrentActor() actor: Actor, @Body() request: SaveCodesRequest): Promise<CodesReply> {
    return this.codes.save(actor, request);
  }
}
