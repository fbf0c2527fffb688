// Server (restarts on change) and interface (hot reload) side by side; Ctrl+C ends both.
import { spawn } from 'node:child_process';

const start = (args) => spawn(process.execPath, args, { stdio: 'inherit' });
const children = [
  start(['--watch-path=packages', '--import', 'tsx', 'packages/server/src/main.ts']),
  start(['node_modules/vite/bin/vite.js', 'packages/web']),
];
const stop = () => children.forEach((child) => child.kill('SIGTERM'));
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
children.forEach((child) => child.once('exit', stop));
