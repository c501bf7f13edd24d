import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseEnumPipe,
  ParseIntPipe,
  Post,
  Put,
  Query,
  StreamableFile,
} from '@nestjs/common';
import {
  CertifyRequest,
  SeenFindingsRequest,
  MendRequest,
  NightlyAuditRequest,
  NoteFindingsRequest,
  SaveRuleSettingsRequest,
  SendFindingsRequest,
  StartAuditRequest,
  WaiveRequest,
  type AssigneeReply,
  type AuditProgressReply,
  type AuditReply,
  type CourseCertificatesReply,
  type DistributionsReply,
  type GoneFindingReply,
  type MendReply,
  type RuleSettingsReply,
  type SendFindingsReply,
} from '#contract/audit';
import { fileOfLines } from '#server/cell-tables';
import { CurrentActor, type Actor, May, type SpreadsheetType } from '#server/platform';
import { AuditService } from './audit.service.js';
import { AuditTasksService } from './runs/audit-tasks.service.js';
import { CertificatePapersService } from './certificates/certificate-papers.service.js';
import { CertificatesService } from './certificates/certificates.service.js';
import { DistributionsService } from './distributions.service.js';
import { findingRows } from './findings-file.js';
import { FindingNotesService } from './settling/finding-notes.service.js';
import { GoneFindingsService } from './gone-findings.service.js';
import { MendingService } from './settling/mending.service.js';
import { RuleSettingsService } from './rule-settings.service.js';
import { SendFindingsService } from './settling/send-findings.service.js';
import { WaiversService } from './settling/waivers.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('audit')
export class AuditController {
  constructor(
    private readonly audit: AuditService,
    private readonly tasks: AuditTasksService,
    private readonly certificates: CertificatesService,
    private readonly papers: CertificatePapersService,
    private readonly gone: GoneFindingsService,
    private readonly notes: FindingNotesService,
    private readonly waivers: WaiversService,
    private readonly distributions: DistributionsService,
    private readonly mending: MendingService,
    private readonly sending: SendFindingsService,
    private readonly settings: RuleSettingsService,
  ) {}

  @Get()
  @May('read-findings', { period: 'query.period' })
  latest(@Query('period', ParseIntPipe) periodId: number): Promise<AuditReply> {
    return this.audit.latest(periodId);
  }

  /** Tells teachers of findings, a message each: without a fingerprint it says what it would write. */
  @Post('messages')
  @May('audit', { period: 'body.periodId' })
  @HttpCode(200)
  send(@CurrentActor() actor: Actor, @Body() request: SendFindingsRequest): Promise<SendFindingsReply> {
    return this.sending.send(actor, request);
  }

  /** A section's labels beside those of its sister sections and of earlier periods. */
  @Get('distributions')
  @May('read-findings', { period: 'query.period' })
  distributionsOf(
    @Query('period', ParseIntPipe) periodId: number,
    @Query('section', ParseIntPipe) sectionId: number,
    @Query('item', ParseIntPipe) itemId: number,
  ): Promise<DistributionsReply> {
    return this.distributions.of(periodId, sectionId, itemId);
  }

  /** What each rule does in a school. */
  @Get('rules')
  @May('read-findings', { school: 'query.school' })
  rules(@Query('school', ParseIntPipe) schoolId: number): Promise<RuleSettingsReply> {
    return this.settings.ofSchool(schoolId);
  }

  @Put('rules/:schoolId')
  @May('change-set-up', { school: 'schoolId' })
  saveRules(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveRuleSettingsRequest,
  ): Promise<RuleSettingsReply> {
    return this.settings.save(actor, schoolId, request);
  }

  /** For all schools that do not say otherwise; the answer is as the school sees it. */
  @Put('shared-rules')
  @May('change-shared-set-up')
  saveSharedRules(
    @CurrentActor() actor: Actor,
    @Query('school', ParseIntPipe) schoolId: number,
    @Body() request: SaveRuleSettingsRequest,
  ): Promise<RuleSettingsReply> {
    return this.settings.saveShared(actor, schoolId, request);
  }

  /** The findings of the last audit as a file. */
  @Get('findings')
  @May('read-findings', { period: 'query.period' })
  async file(
    @Query('period', ParseIntPipe) periodId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    return fileOfLines(findingRows(await this.audit.latest(periodId)), 'Findings', type);
  }

  /** Closes the audit of a period with a certificate. */
  @Post('certificates')
  @May('audit', { period: 'body.periodId' })
  @HttpCode(200)
  async certify(@CurrentActor() actor: Actor, @Body() request: CertifyRequest): Promise<AuditReply> {
    await this.certificates.issue(actor, request);
    return this.audit.latest(request.periodId);
  }

  /** Which courses are certified by themselves, and how far the others are from it. */
  @Get('certificates')
  @May('read-findings', { period: 'query.period' })
  ofCourses(@Query('period', ParseIntPipe) periodId: number): Promise<CourseCertificatesReply> {
    return this.certificates.ofCourses(periodId);
  }

  /** A certificate on paper; the last one of all of a period unless another one is named. */
  @Get('certificate')
  @May('read-findings', { period: 'query.period' })
  async paper(
    @Query('period', ParseIntPipe) periodId: number,
    @Query('id', new ParseIntPipe({ optional: true })) id?: number,
  ): Promise<StreamableFile> {
    return new StreamableFile(await this.papers.of(periodId, id), {
      type: 'application/pdf',
      disposition: 'attachment; filename="certificate.pdf"',
    });
  }

  /** The grades of a period as a certificate knows them: its SHA-256 is that of this file while it holds. */
  @Get('grades-file')
  @May('read-findings', { period: 'query.period' })
  async gradesFile(
    @Query('period', ParseIntPipe) periodId: number,
    @Query('id', new ParseIntPipe({ optional: true })) id?: number,
  ): Promise<StreamableFile> {
    return new StreamableFile(Buffer.from(await this.papers.gradesOf(periodId, id)), {
      type: 'application/jsonl',
      disposition: 'attachment; filename="grades.jsonl"',
    });
  }

  /** Lets findings stand for a reason. */
  @Put('waivers')
  @May('audit', { period: 'body.periodId' })
  async waive(@CurrentActor() actor: Actor, @Body() request: WaiveRequest): Promise<AuditReply> {
    await this.waivers.waive(actor, request);
    return this.audit.latest(request.periodId);
  }

  /** Says whose findings are and what is being done about them. */
  @Put('notes')
  @May('audit', { period: 'body.periodId' })
  async note(@CurrentActor() actor: Actor, @Body() request: NoteFindingsRequest): Promise<AuditReply> {
    await this.notes.note(actor, request);
    return this.audit.latest(request.periodId);
  }

  /** What the run before found and the last one did not. */
  @Get('gone')
  @May('read-findings', { period: 'query.period' })
  goneSince(@Query('period', ParseIntPipe) periodId: number): Promise<GoneFindingReply[]> {
    return this.gone.ofPeriod(periodId);
  }

  /** Who may be given a finding. */
  @Get('assignees')
  @May('read-findings', { period: 'query.period' })
  assignees(@Query('period', ParseIntPipe) periodId: number): Promise<AssigneeReply[]> {
    return this.notes.assignees(periodId);
  }

  @Post('waivers/end')
  @May('audit', { period: 'body.periodId' })
  @HttpCode(200)
  async endWaivers(@CurrentActor() actor: Actor, @Body() request: SeenFindingsRequest): Promise<AuditReply> {
    await this.waivers.end(actor, request);
    return this.audit.latest(request.periodId);
  }

  /** Sets right what rules can set right by themselves: without a fingerprint it tells what it would set. */
  @Post('mend')
  @May('post-outside-window', { period: 'body.periodId' })
  @HttpCode(200)
  mend(@CurrentActor() actor: Actor, @Body() request: MendRequest): Promise<MendReply> {
    return this.mending.mend(actor, request);
  }

  /** Begins an audit; what it found is there when it is no longer under way. */
  @Post('runs')
  @May('audit', { period: 'body.periodId' })
  @HttpCode(202)
  start(@CurrentActor() actor: Actor, @Body() { periodId }: StartAuditRequest): Promise<AuditProgressReply> {
    return this.tasks.start(actor, periodId);
  }

  @Delete('runs')
  @May('audit', { period: 'query.period' })
  stop(@CurrentActor() actor: Actor, @Query('period', ParseIntPipe) periodId: number): Promise<AuditProgressReply> {
    return this.tasks.stop(actor, periodId);
  }

  @Get('progress')
  @May('read-findings', { period: 'query.period' })
  progress(@Query('period', ParseIntPipe) periodId: number): Promise<AuditProgressReply> {
    return this.tasks.progress(periodId);
  }

  /** When the school's periods are audited by themselves. */
  @Put('nightly/:schoolId')
  @May('change-set-up', { school: 'schoolId' })
  setNightly(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: NightlyAuditRequest,
  ): Promise<RuleSettingsReply> {
    return this.settings.setNightly(actor, schoolId, request);
  }
}
