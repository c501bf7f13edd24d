export { FilesModule } from './files.module.js';
