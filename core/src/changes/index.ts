export {
  canonicalJson,
  chainStart,
  entryHash,
  findChainFault,
  type ChainedEntry,
  type ChangeOfEntry,
} from './chain.js';
export { differences, type Difference } from './differences.js';
