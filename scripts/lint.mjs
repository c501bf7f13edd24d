// npm run lint: types, oxlint, oxfmt, the arrows between the layers, and nothing that nobody uses.
import { runTool } from './steps.mjs';

runTool('@typescript/native', ['-b']);
runTool('@typescript/native', ['-p', 'e2e']);
runTool('oxlint', ['--type-aware', '--deny-warnings', '.']);
runTool('oxfmt', ['--check']);
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
