export { ReportCardsModule } from './report-cards.module.js';
