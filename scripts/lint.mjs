// npm run lint: types, oxlint, prettier, the arrows between the layers, and nothing that nobody uses.
import { runTool } from './steps.mjs';

runTool('typescript', ['-b']);
runTool('typescript', ['-p', 'e2e']);
runTool('oxlint', ['--type-aware', '--deny-warnings', '.']);
runTool('prettier', ['--check', '--log-level', 'warn', '.']);
runTool('dependency-cruiser', [
  '--config',
  '.dependency-cruiser.cjs',
  'core/src',
  'contract/src',
  'server/src',
  'web/src',
  'standins/src',
  'demo/src',
]);
runTool('knip', []);
