// npm run dev: the compiler, the server and Vite side by side; the demo district underneath.
import { spawn } from 'node:child_process';
import { build, install, root } from './steps.mjs';

install();
build();
const start = (args) => spawn(process.execPath, args, { cwd: root, stdio: 'inherit' });
const all = [
  start(['node_modules/typescript/bin/tsc', '-b', '--watch', '--preserveWatchOutput']),
  start([
    '--watch-path=server/dist',
    '--watch-path=core/dist',
    '--watch-path=contract/dist',
    'demo/dist/start-demo.js',
  ]),
  start(['node_modules/vite/bin/vite.js']),
];
process.on('SIGINT', () => all.forEach((child) => child.kill('SIGTERM')));
