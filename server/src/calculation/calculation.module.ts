import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { LogModule } from '#server/log';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { BookCalculator } from './book-calculator.js';
import { BookSectionsRepository } from './book-sections.repository.js';
import { BooksRepository } from './books.repository.js';
import { BooksService } from './books.service.js';
import { CalculatedGradesRepository } from './calculated-grades.repository.js';
import { CalculationController, GradeBooksController } from './calculation.controller.js';
import { CategoriesRepository } from './categories.repository.js';
import { CategoriesService } from './categories.service.js';
import { PoliciesRepository } from './policies.repository.js';
import { PoliciesService } from './policies.service.js';
import { PolicyEffectService } from './policy-effect.service.js';
import { RecalculationService } from './recalculation.service.js';
import { SaveBookService } from './save-book.service.js';
import { SectionPolicies } from './section-policies.js';

@Module({
  imports: [CalendarModule, LogModule, ReportItemsModule, ScalesModule],
  controllers: [CalculationController, GradeBooksController],
  providers: [
    BookCalculator,
    BookSectionsRepository,
    BooksRepository,
    BooksService,
    CalculatedGradesRepository,
    CategoriesRepository,
    CategoriesService,
    PoliciesRepository,
    PoliciesService,
    PolicyEffectService,
    RecalculationService,
    SaveBookService,
    SectionPolicies,
  ],
  exports: [
    BookSectionsRepository,
    BooksRepository,
    CalculatedGradesRepository,
    CategoriesRepository,
    PoliciesRepository,
    PoliciesService,
    PolicyEffectService,
    RecalculationService,
    SectionPolicies,
  ],
})
export class CalculationModule {}
