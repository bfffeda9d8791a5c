// Import from the page's side: files picked or dropped, also whole folders of them.
import type { Place } from '../../core/mail/place';
import { reasonOf } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { commandId, say } from '../state/desk';
import { askToKeep } from '../state/keeping';
import { refresh, useMailbox } from '../state/overview';

/** Brings files in, and tells what it came to. One import at a time. */
export async function bringIn(files: File[], target: Place | 'line'): Promise<void> {
  if (files.length === 0 || useMailbox.getState().importing) return;
  const job = commandId();
  const bytesTotal = files.reduce((n, f) => n + f.size, 0);
  useMailbox.setState({
    imported: null,
    importing: {
      job,
      file: files[0].name,
      fileIndex: 0,
      files: files.length,
      bytesDone: 0,
      bytesTotal,
      added: 0,
      already: 0,
      damaged: 0,
    },
  });
  // Mail that nobody promised to keep is not safe here: asked while the person is at it.
  void askToKeep();
  try {
    const imported = await mailroom.importFiles(job, files, target);
    // What it came to and the counts are told together.
    await refresh();
    useMailbox.setState({ imported });
  } catch (error) {
    say({
      text: `The import stopped: ${reasonOf(error)}`,
      tone: 'trouble',
    });
  } finally {
    useMailbox.setState({ importing: null });
  }
}

async function filesOf(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile)
    return new Promise((resolve, reject) => (entry as FileSystemFileEntry).file((f) => resolve([f]), reject));
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const out: File[] = [];
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (batch.length === 0) return out;
    for (const inner of batch) out.push(...(await filesOf(inner)));
  }
}

/** The files of a drop, those in dropped folders too. */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...data.files];
  return (await Promise.all(entries.map(filesOf))).flat();
}
