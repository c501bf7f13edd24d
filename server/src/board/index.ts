export { BoardModule } from './board.module.js';
