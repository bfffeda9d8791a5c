// Installs what is missing: packages for this lock file, and Debian's Chromium where tests need it.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

export const root = new URL('..', import.meta.url).pathname;
const stamp = `${root}node_modules/.wide-sort-lock`;

/** Runs a command in the project, with its output on ours; ends this process where it fails. */
export function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  if (status !== 0) process.exit(status ?? 1);
}

/** Runs a command in the project, with its output on ours, while others go on; its status. */
export const runBeside = (command, args, env = {}) =>
  new Promise((resolve) =>
    spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } }).on('close', (status) =>
      resolve(status ?? 1),
    ),
  );

export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(`${root}package-lock.json`))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, lock);
}

/** Debian’s packages that tests need: its Chromium and that without a window, and what reads what we write, for Python. */
const needed = {
  chromium: () => chromiumPath() !== undefined,
  'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell'),
  'python3-sievelib': () => pythonHas('sievelib'),
  'python3-vobject': () => pythonHas('vobject'),
  'python3-icalendar': () => pythonHas('icalendar'),
};

const chromiumPath = () => ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);

const pythonHas = (module) =>
  spawnSync('/usr/bin/python3', ['-c', `import ${module}`], { stdio: 'ignore' }).status === 0;

/** Installs the project’s packages, and beside that those of Debian’s that tests need and that are missing; the path of Chromium. */
export async function installForTests() {
  const missing = Object.keys(needed).filter((name) => !needed[name]());
  const debian = missing.length ? installDebian(missing) : Promise.resolve();
  installPackages();
  await debian;
  return chromiumPath() ?? '/usr/bin/chromium';
}

async function installDebian(names) {
  const words = names.join(', ');
  console.log(`Installing from Debian: ${words} …`);
  const [command, ...before] = process.getuid?.() === 0 ? ['sh'] : ['sudo', 'sh'];
  // One command for both: this process is busy meanwhile, and would begin the second only then.
  const both = `apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq ${names.join(' ')}`;
  if ((await runBeside(command, [...before, '-c', both])) === 0) return;
  console.error(`Missing, and not to be installed with apt-get: ${words}. Install them and run npm test again.`);
  process.exit(1);
}

/**
 * Begins a command that takes what time others leave it, and keeps what it prints. What comes back is called when they
 * are done: it settles with the command's status once all it printed is on our output.
 */
export function beginQuietly(command, args) {
  const its = spawn('nice', ['-n', '19', command, ...args], { cwd: root });
  const printed = [];
  for (const stream of [its.stdout, its.stderr]) stream.on('data', (some) => printed.push(some));
  const ended = new Promise((resolve) => its.on('close', (status) => resolve(status ?? 1)));
  return async () => {
    const status = await ended;
    await new Promise((resolve) => process.stdout.write(Buffer.concat(printed), resolve));
    return status;
  };
}
