// `sieve-write` and `sieve-read`: rules as Sieve scripts, and back.
import { readFile } from 'node:fs/promises';
import { emptySetup, readScript, setupScript, type Remark } from '../src/core';
import { fileError, oneFile as one, setupOf, UsageError } from './files';
import type { Options, Output } from './options';

/** The rules of a setup as a script on standard output; what Sieve can't say, on standard error. */
export async function sieveWrite(files: readonly string[], output: Output): Promise<void> {
  const { script, unsaid } = setupScript(await setupOf(one(files, 'the setup')));
  output.out(script);
  for (const { rule, says } of unsaid) output.error(`${rule}: ${says}.\n`);
}

const remark = ({ at, says }: Remark) => ({ line: at.line, column: at.column, says });

/** A script as a setup: one object with the setup, what was not taken, and what means something else here. */
export async function sieveRead(files: readonly string[], options: Options, output: Output): Promise<void> {
  const file = one(files, 'the script');
  const text = await readFile(file, 'utf8').catch((error: unknown) => {
    throw fileError(file, error);
  });
  const base = options.setup ? await setupOf(options.setup) : emptySetup;
  let made = 0;
  const result = readScript(text, base, () => `sieve-${++made}`);
  if (!result.ok) {
    const { at, says } = result.error;
    throw new UsageError(`${file}:${at.line}:${at.column}: ${says}`);
  }
  const { rules, folders, labels, left, notes } = result.read;
  const setup = {
    ...base,
    rules,
    folders: [...base.folders, ...folders],
    labels: [...base.labels, ...labels],
  };
  if (options.json) {
    output.out(`${JSON.stringify({ setup, left: left.map(remark), notes: notes.map(remark) })}\n`);
    return;
  }
  output.out(`${JSON.stringify(setup, null, 2)}\n`);
  for (const { at, says } of left) output.error(`${file}:${at.line}:${at.column}: not taken: ${says}\n`);
  for (const { at, says } of notes) output.error(`${file}:${at.line}:${at.column}: ${says}\n`);
}
