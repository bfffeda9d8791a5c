// Files of mail in a .zip, as “Save as .eml files” writes it. What it unpacks to is bounded: a few kilobytes can stand for
// gigabytes.
import { BlobReader, BlobWriter, configure, ZipReader } from '@zip.js/zip.js';
import type { MailFile } from './mailFile';
import { count, reasonOf } from '../../core/text/sentences';

/** More files than these are not read. */
const mostFiles = 200_000;
/** A file that unpacks to more is not read, in bytes. */
const largestFile = 1 << 30;
/** How many times as large as the archive all may be together: text that repeats itself rarely gets smaller than this. */
const mostUnpacked = 100;

// It stands in a worker already.
configure({ useWebWorkers: false });

/** What is no mail in an archive made by a file manager. */
const beside = /(^|\/)(__MACOSX\/|\.|Thumbs\.db$|desktop\.ini$)/;

/**
 * Visits the files of an archive in their order, until one says false. The reason why it could not be read, or all of it
 * not; null where it could.
 */
export async function eachFileOf(file: MailFile, visit: (file: MailFile) => Promise<boolean>): Promise<string | null> {
  const part = file.slice(0, file.size);
  const whole = part instanceof Blob ? part : new Blob([await part.arrayBuffer()]);
  const reader = new ZipReader(new BlobReader(whole));
  try {
    let files = 0;
    let unpacked = 0;
    for await (const entry of reader.getEntriesGenerator()) {
      if (entry.directory || beside.test(entry.filename)) continue;
      if (++files > mostFiles)
        return `It holds more than ${count(mostFiles)} files: what comes after them was not read.`;
      if (entry.encrypted) return 'It is encrypted. Unpack it, and bring in what is in it.';
      unpacked += entry.uncompressedSize;
      if (entry.uncompressedSize > largestFile || unpacked > Math.max(1 << 20, file.size) * mostUnpacked)
        return `“${entry.filename.slice(0, 100)}” would unpack to more than an archive of mail does: it and what follows was not read.`;
      const blob = await entry.getData(new BlobWriter(), { checkSignature: true });
      const { size } = blob;
      const slice = (start: number, end: number) => blob.slice(start, end);
      if (!(await visit({ name: entry.filename.split('/').at(-1) ?? entry.filename, size, slice }))) return null;
    }
    return null;
  } catch (error) {
    return `It is a .zip that can’t be read to its end: ${reasonOf(error)}.`;
  } finally {
    await reader.close().catch(() => undefined);
  }
}
