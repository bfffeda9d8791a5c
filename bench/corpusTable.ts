// The tables that a second implementation made of the real messages: counts and hashes, no words.
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';

/** The first eight digits of a text's SHA-256: enough to tell apart what a table holds. */
export const shortHash = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 8);

/** The lines of a table after its heads, each as its columns. */
export const corpusTable = (file: string): string[][] =>
  readFileSync(file, 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split('\t'));
