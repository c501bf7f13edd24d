export {
  canonicalJson,
  chainStart,
  entryHash,
  findChainFault,
  type ChainFault,
  type ChainedEntry,
  type Hash,
  type LogEntry,
} from './chain.js';
