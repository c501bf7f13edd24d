export { canonicalJson, chainStart, entryHash, findChainFault, type ChainedEntry } from './chain.js';
