/** What class-transformer knows of nested classes; the package ships it without an entry of its own. */
declare module 'class-transformer/cjs/storage.js' {
  import type { MetadataStorage } from 'class-transformer/types/MetadataStorage.js';

  export const defaultMetadataStorage: MetadataStorage;
}
