import { Body, Controller, Get, Put } from '@nestjs/common';
import { SaveCodesRequest, type CodesReply } from '#contract/codes';
import { CurrentActor, type Actor, May } from '#server/platform';
import { CodesService } from './codes.service.js';

@Controller('codes')
export class CodesController {
  constructor(private readonly codes: CodesService) {}

  @Get()
  @May('read-set-up')
  list(): Promise<CodesReply> {
    return this.codes.list();
  }

  @Put()
  @May('change-shared-set-up')
  save(@CurrentActor() actor: Actor, @Body() request: SaveCodesRequest): Promise<CodesReply> {
    return this.codes.save(actor, request);
  }
}
