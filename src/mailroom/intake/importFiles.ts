// Import: files of mail, streamed, parsed in workers, and added in batches, each whole or not there.
import { MboxSplitter, sniffMail, type Form } from '../../core/mail/mbox';
import { mostMessages } from '../../core/mail/mailboxSize';
import { placeName, type Place } from '../../core/mail/place';
import type { ImportProgress, ImportReport } from '../border/transfer';
import { eachFileOf } from './archive';
import type { MailFile } from './mailFile';
import { addMessages, type Incoming, type TakingIn } from './incoming';
import { Duplicates } from './duplicates';
import { NotWritten, type Exclusive } from '../storage/committing';
import type { Logged } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Parse, ParsedBatch } from '../reading/parsePool';
import { oneLine } from '../../core/text/oneLine';
import { count, messages, reasonOf } from '../../core/text/sentences';

const batchMessages = 512;
const batchBytes = 8 << 20;
const readBytes = 1 << 20;

/** What one import may be told while it runs. */
export interface ImportControl {
  cancelled: boolean;
}

interface Job {
  mailbox: TakingIn & Exclusive;
  id: string;
  target: Place | 'line';
  report: ImportReport;
  duplicates: Duplicates;
  progress: ImportProgress;
  tell: (progress: ImportProgress) => void;
  part: number;
  /** What is brought in, in words. */
  names: string;
  parse: Parse;
  /** Whether the junk filter judges what is brought in. */
  judged: boolean;
  /** How many batches may wait for the workers. */
  ahead: number;
  /** The batch that is being filled: small files share one. */
  batch: Uint8Array<ArrayBuffer>[];
  bytes: number;
  form: Form;
  /** Batches being parsed, oldest first: they are added in the order of the files. */
  pending: { form: Form; parsed: Promise<ParsedBatch> }[];
}

function incoming(job: Job, batch: ParsedBatch, form: Form): Incoming[] {
  const { target, mailbox } = job;
  return batch.envelopes.flatMap((envelope, i) => {
    if (!job.duplicates.isNew(envelope)) {
      job.report.already++;
      return [];
    }
    if (envelope.damage !== null) job.report.damaged++;
    const says = `You brought it in from ${job.names}, straight to ${target === 'line' ? '' : placeName(target, mailbox.setup.folders)}.`;
    return {
      stored: { bytes: batch.messages[i], form },
      envelope,
      features: batch.features[i],
      text: { batch: batch.text, at: i },
      place: target === 'line' ? null : target,
      read: target === 'sent',
      flagged: false,
      why: target === 'line' ? null : { station: 'import' as const, by: null, says },
    };
  });
}

const full = `A mailbox takes in ${messages(mostMessages)} at most, and this one has as many. What came in stays; the rest can go into another Wide Sort, in another profile of the browser.`;

async function add(job: Job, batch: ParsedBatch, form: Form): Promise<void> {
  const all = incoming(job, batch, form);
  const list = all.slice(0, Math.max(0, mostMessages - job.mailbox.columns.count));
  if (list.length) {
    job.part++;
    job.report.added += list.length;
    await job.mailbox.exclusive(() =>
      addMessages(job.mailbox, list, {
        command: `${job.id}/${job.part}`,
        by: 'you',
        says: `Brought in ${messages(job.report.added)} from ${job.names}`,
      }),
    );
  }
  Object.assign(job.progress, { added: job.report.added, already: job.report.already, damaged: job.report.damaged });
  job.tell({ ...job.progress });
  if (list.length < all.length) throw new NotWritten(full);
}

/** Hands the batch that is being filled to the workers, and adds what they have done meanwhile. */
async function dispatch(job: Job, most: number): Promise<void> {
  if (job.batch.length) {
    const { form } = job;
    job.pending.push({ form, parsed: job.parse(job.batch, form, job.judged) });
    job.batch = [];
    job.bytes = 0;
  }
  while (job.pending.length > most) {
    const { form, parsed } = job.pending[0];
    await add(job, await parsed.finally(() => job.pending.shift()), form);
  }
}

async function take(job: Job, message: Uint8Array<ArrayBuffer>, form: Form): Promise<void> {
  if (form !== job.form) await dispatch(job, job.ahead);
  job.form = form;
  job.batch.push(message);
  job.bytes += message.length;
  if (job.batch.length >= batchMessages || job.bytes >= batchBytes) await dispatch(job, job.ahead);
}

/** Takes the files of an archive one after another; the reason where it is none, or holds no mail. */
async function importArchive(job: Job, file: MailFile, control: ImportControl): Promise<string | null> {
  const before = job.report.refused.length;
  const total = job.progress.bytesDone + file.size;
  let taken = 0;
  const trouble = await eachFileOf(file, async (inner) => {
    if (control.cancelled) return false;
    const refused = await importFile(job, inner, control, true);
    if (refused === null) taken++;
    else job.report.refused.push({ file: `${file.name}: ${oneLine(inner.name)}`, reason: refused });
    job.progress.bytesDone = Math.min(job.progress.bytesDone, total);
    return true;
  });
  job.progress.bytesDone = total;
  if (trouble !== null || taken > 0 || control.cancelled) return trouble;
  return job.report.refused.length > before ? null : 'No file of mail is in it.';
}

/** Takes one file; the reason where it is no mail. `within`: it stands in an archive. */
async function importFile(job: Job, file: MailFile, control: ImportControl, within = false): Promise<string | null> {
  const sniffed = sniffMail(new Uint8Array(await file.slice(0, 65_536).arrayBuffer()));
  if (sniffed === 'zip') return within ? 'It is an archive within an archive.' : importArchive(job, file, control);
  if (sniffed === 'empty') return 'It is empty.';
  if (sniffed === 'neither')
    return 'It is no mail: it begins neither with a “From ” line, as an mbox does, nor with header fields, as a message does, and it is no .zip of such files.';
  // A message saved from an mbox may have kept its From_ line; called .eml it is one message all the same.
  const form: Form = /\.eml$/i.test(file.name) ? 'eml' : sniffed;
  const splitter = new MboxSplitter();
  const single: Uint8Array<ArrayBuffer>[] = [];
  for (let at = 0; at < file.size && !control.cancelled; at += readBytes) {
    const chunk = new Uint8Array(await file.slice(at, Math.min(at + readBytes, file.size)).arrayBuffer());
    if (form === 'mbox') for (const message of splitter.push(chunk)) await take(job, message, form);
    else single.push(chunk);
    job.progress.bytesDone += chunk.length;
    job.tell({ ...job.progress });
  }
  if (control.cancelled) return null;
  if (form === 'mbox') for (const message of splitter.end()) await take(job, message, form);
  else await take(job, new Uint8Array(await new Blob(single).arrayBuffer()), form);
  return null;
}

/** Files in words: the name of a single one, or how many. */
export const namesOf = (files: readonly Pick<MailFile, 'name'>[]): string =>
  files.length === 1 ? oneLine(files[0].name) : `${count(files.length)} files`;

/**
 * Brings files in. What was added before a cancel, a full disk or a crash stays, and the same files again add only the
 * rest. `ahead`: how many batches may wait for the workers.
 */
export async function importFiles(
  mailbox: TakingIn & Exclusive & Pick<Stored, 'envelopes'> & Pick<Logged, 'heads'>,
  id: string,
  files: readonly MailFile[],
  target: Place | 'line',
  parse: Parse,
  ahead: number,
  control: ImportControl,
  tell: (progress: ImportProgress) => void,
): Promise<ImportReport> {
  await mailbox.ready();
  const report: ImportReport = { added: 0, already: 0, damaged: 0, refused: [], cancelled: false, error: null };
  const names = namesOf(files);
  const job: Job = {
    mailbox,
    id,
    target,
    report,
    duplicates: new Duplicates(mailbox),
    progress: {
      job: id,
      file: '',
      fileIndex: 0,
      files: files.length,
      bytesDone: 0,
      bytesTotal: files.reduce((n, f) => n + f.size, 0),
      added: 0,
      already: 0,
      damaged: 0,
    },
    tell,
    part: 0,
    names,
    parse,
    judged: target === 'line' && mailbox.setup.junk.strictness > 0,
    ahead,
    batch: [],
    bytes: 0,
    form: 'mbox',
    pending: [],
  };
  try {
    for (const [index, file] of files.entries()) {
      if (control.cancelled) break;
      job.progress.file = file.name;
      job.progress.fileIndex = index;
      const done = job.progress.bytesDone;
      let refused: string | null;
      try {
        refused = await importFile(job, file, control);
      } catch (error) {
        if (error instanceof NotWritten) throw error;
        refused = `It could not be read: ${reasonOf(error)}.`;
      }
      if (refused !== null) {
        report.refused.push({ file: file.name, reason: refused });
        job.progress.bytesDone = done + file.size;
      }
    }
    if (control.cancelled) job.batch = [];
    await dispatch(job, 0);
  } catch (error) {
    if (!(error instanceof NotWritten)) throw error;
    report.added = mailboxAdded(mailbox, id);
    report.error = error.message;
  }
  report.cancelled = control.cancelled;
  return report;
}

/** How many messages a job has really added. */
function mailboxAdded(mailbox: Pick<Logged, 'heads'>, id: string): number {
  return mailbox.heads.filter((h) => h.command.startsWith(`${id}/`)).reduce((n, h) => n + h.count, 0);
}
