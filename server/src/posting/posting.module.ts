import { Module } from '@nestjs/common';
import { AttendanceModule } from '#server/attendance';
import { AuditRulesModule } from '#server/audit-rules';
import { CodesModule } from '#server/codes';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { CompositesService } from './composites.service.js';
import { GradeRowsModule } from '#server/grade-rows';
import { ItemEffectService } from './item-effect.service.js';
import { PostingController } from './posting.controller.js';
import { GradeThing } from './grade.thing.js';
import { GradesRepository } from './grades.repository.js';
import { PostingAccess } from './posting-access.service.js';
import { ReceiptsRepository } from './receipts.repository.js';
import { SaveSheetService } from './save-sheet.service.js';
import { SectionProgressRepository } from './section-progress.repository.js';
import { SheetContextService } from './sheet-context.service.js';
import { SheetsService } from './sheets.service.js';
import { DayReceiptsService } from './day-receipts.service.js';
import { PostingRequestsRepository } from './posting-requests.repository.js';
import { PostingRequestsService } from './posting-requests.service.js';
import { SignOffsRepository } from './sign-offs.repository.js';
import { SignOffService } from './sign-off.service.js';
import { SignOffThing } from './sign-off.thing.js';
import { StockCommentsService } from './stock-comments.service.js';
import { StockCommentsThing } from './stock-comments.thing.js';
import { ReceiptMessagesService } from './receipt-messages.service.js';
import { MailModule } from '#server/mail';

@Module({
  imports: [
    AttendanceModule,
    AuditRulesModule,
    CodesModule,
    GradeRowsModule,
    MailModule,
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    ChangesModule,
    ReportItemsModule,
    ScalesModule,
  ],
  controllers: [PostingController],
  providers: [
    CompositesService,
    GradesRepository,
    GradeThing,
    PostingAccess,
    ReceiptsRepository,
    ItemEffectService,
    SaveSheetService,
    SectionProgressRepository,
    SheetContextService,
    SheetsService,
    DayReceiptsService,
    PostingRequestsRepository,
    PostingRequestsService,
    SignOffsRepository,
    SignOffService,
    SignOffThing,
    StockCommentsService,
    StockCommentsThing,
    ReceiptMessagesService,
  ],
  exports: [
    CompositesService,
    PostingRequestsRepository,
    SaveSheetService,
    SignOffsRepository,
    SectionProgressRepository,
    SheetContextService,
  ],
})
export class PostingModule {}
