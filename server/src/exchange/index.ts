export { ExchangeService } from './exchange.service.js';
export { ExchangeModule } from './exchange.module.js';
