// Installs what is missing: packages for this lock file, and Debian's Chromium where tests need it.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

export const root = new URL('..', import.meta.url).pathname;
const stamp = `${root}node_modules/.wide-sort-lock`;

/** Runs a command in the project, with its output on ours; ends this process where it fails. */
export function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  if (status !== 0) process.exit(status ?? 1);
}

export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(`${root}package-lock.json`))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, lock);
}

/** The path of Chromium; installs Debian's, and its shell without a window, where they are missing. */
export function installChromium() {
  const found = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
  if (!found) installDebian('chromium', 'Chromium');
  if (!existsSync('/usr/bin/chromium-headless-shell'))
    installDebian('chromium-headless-shell', 'Chromium without a window');
  return found ?? '/usr/bin/chromium';
}

/** Other programs that read what we write, so that the tests know that they can: Debian's, for Python. */
const readers = { sievelib: 'python3-sievelib', vobject: 'python3-vobject' };

export function installReaders() {
  for (const [module, name] of Object.entries(readers)) {
    const { status } = spawnSync('/usr/bin/python3', ['-c', `import ${module}`], { stdio: 'ignore' });
    if (status !== 0) installDebian(name, name);
  }
}

function installDebian(name, words) {
  console.log(`Installing Debian’s ${words} …`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = [...sudo, 'apt-get'];
  try {
    execFileSync(apt[0], [...apt.slice(1), 'update', '-qq'], { stdio: 'inherit' });
    execFileSync(apt[0], [...apt.slice(1), 'install', '-y', '-qq', name], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  } catch {
    console.error(`${words} is missing and could not be installed with apt-get. Install it and run npm test again.`);
    process.exit(1);
  }
}
