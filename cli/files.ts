// Files of mail as a stream of messages, whatever their size.
import { createReadStream } from 'node:fs';
import { open, readFile } from 'node:fs/promises';
import { parseSetup, type Setup } from '../src/core';
import { MboxSplitter, sniffMail, type Form } from '../src/core/mail/mbox';
import { reasonOf } from '../src/core/text/sentences';

/** A file, setup or option that can't be used: one clear line for the person, exit code 2. */
export class UsageError extends Error {}

/** An option that there is not, or that lacks its value: the whole usage is said, too. */
export class OptionError extends UsageError {}

/** What went wrong with a file, in words. */
function reason(error: unknown): string {
  const code = typeof error === 'object' && error !== null && 'code' in error ? error.code : '';
  if (code === 'ENOENT') return 'there is no such file';
  if (code === 'EISDIR') return 'it is a folder';
  if (code === 'EACCES') return 'it may not be read';
  return reasonOf(error);
}

export const fileError = (file: string, error: unknown) => new UsageError(`${file}: ${reason(error)}`);

/** The stored messages of a file, in order, each with how it is wrapped. Throws UsageError where it is no mail. */
export async function* messagesOf(file: string): AsyncGenerator<{ stored: Uint8Array; form: Form }> {
  let kind: ReturnType<typeof sniffMail>;
  try {
    const handle = await open(file);
    try {
      const { buffer, bytesRead } = await handle.read(new Uint8Array(65_536), 0, 65_536, 0);
      kind = sniffMail(buffer.subarray(0, bytesRead));
    } finally {
      await handle.close();
    }
  } catch (error) {
    throw fileError(file, error);
  }
  if (kind === 'empty') throw new UsageError(`${file}: it is empty`);
  if (kind === 'zip') throw new UsageError(`${file}: it is an archive; unpack it first`);
  if (kind === 'neither') throw new UsageError(`${file}: it is no mail, neither an mbox nor a message`);
  if (kind === 'eml' || /\.eml$/i.test(file)) {
    const chunks: Buffer[] = [];
    for await (const chunk of createReadStream(file)) chunks.push(chunk as Buffer);
    yield { stored: Uint8Array.from(Buffer.concat(chunks)), form: 'eml' };
    return;
  }
  const splitter = new MboxSplitter();
  for await (const chunk of createReadStream(file, { highWaterMark: 1 << 20 })) {
    // A plain array of bytes: Node's Buffer would be read more slowly by the core.
    const bytes = chunk as Buffer;
    for (const stored of splitter.push(new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.length)))
      yield { stored, form: 'mbox' };
  }
  for (const stored of splitter.end()) yield { stored, form: 'mbox' };
}

/** The text of a file. Throws UsageError. */
export const fileText = (file: string): Promise<string> =>
  readFile(file, 'utf8').catch((error: unknown) => {
    throw fileError(file, error);
  });

/** The setup in a file. Throws UsageError, with what is wrong and where. */
export async function setupOf(file: string): Promise<Setup> {
  const read = parseSetup(await fileText(file));
  if (!read.ok) throw new UsageError(`${file}: ${read.error}`);
  return read.setup;
}

/** The one file that a verb is given; `what` it is to be. */
export function oneFile(files: readonly string[], what: string): string {
  if (files.length !== 1) throw new UsageError(`Name one file: ${what}.`);
  return files[0];
}
