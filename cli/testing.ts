// The command line as the tests call it.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { run } from './run';

const folder = mkdtempSync(path.join(tmpdir(), 'wide-sort-cli-'));

/** Writes a file for the command line to read, and gives its path. */
export function put(name: string, content: string | Uint8Array): string {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  return file;
}

/** Runs a command and gives what it printed, as text and what is no text as `bytes` too, and its exit code. */
export async function cli(...args: string[]) {
  const said = { out: '', error: '' };
  const bytes: Uint8Array[] = [];
  const code = await run(args, {
    out: (text) => (said.out += text),
    error: (text) => (said.error += text),
    binary: async (part) => {
      bytes.push(part);
      said.out += Buffer.from(part).toString();
    },
  });
  return { code, ...said, bytes: Buffer.concat(bytes) };
}
