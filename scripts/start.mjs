// `npm start`: installs what is missing, builds, serves. `npm run dev`: the same with Vite’s server before it.
import { spawn } from 'node:child_process';
import { installPackages, root, run } from './install.mjs';

installPackages();
const dev = process.argv.includes('--dev');
if (!dev) run('npx', ['vite', 'build', '--logLevel', 'warn']);
const children = [spawn('node', ['--import', 'tsx', 'server/main.ts'], { cwd: root, stdio: 'inherit' })];
if (dev) children.push(spawn('npx', ['vite'], { cwd: root, stdio: 'inherit' }));
for (const child of children)
  child.on('exit', (code) => {
    for (const other of children) other.kill();
    process.exitCode = code ?? 0;
  });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((child) => child.kill(signal)));
