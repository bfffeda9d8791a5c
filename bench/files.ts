// The files that are measured on: the real corpus, and the demo mailbox at any size.
import { closeSync, existsSync, mkdirSync, openSync, renameSync, writeSync } from 'node:fs';
import path from 'node:path';
import { demoMailbox } from '../demo/mailbox';
import { corpusFiles } from '../e2e/corpus';
import { toMbox } from '../src/core';

const cache = path.join(import.meta.dirname, '../.cache');

/** Half a mailbox in each of two files, so that half of it can be archived; made once and kept in .cache/. */
export function demoFiles(count: number): string[] {
  mkdirSync(cache, { recursive: true });
  const now = Date.UTC(2026, 10, 24, 10, 30);
  const files = [0, 1].map((half) => path.join(cache, `demo-${count}-${half}.mbox`));
  if (files.every(existsSync)) return files;
  const mailbox = demoMailbox(count, 7, now);
  const middle = Math.floor(count / 2);
  for (const [half, part] of [mailbox.slice(0, middle), mailbox.slice(middle)].entries()) {
    const out = openSync(`${files[half]}.part`, 'w');
    for (const [i, { raw, sender, date }] of part.entries())
      writeSync(out, toMbox(raw, 'eml', sender, date, i === part.length - 1));
    closeSync(out);
    renameSync(`${files[half]}.part`, files[half]);
  }
  return files;
}

/** The corpus as mbox files. */
export function realFiles(): string[] {
  const folder = path.join(cache, 'corpus');
  mkdirSync(folder, { recursive: true });
  return corpusFiles(folder).files;
}
