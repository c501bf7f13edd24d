export { TransferModule } from './transfer.module.js';
