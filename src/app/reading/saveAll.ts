import { ownNames } from '../../core/text/fileName';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { saveFile } from '../ui/save';

/** Saves attachments as one .zip, each by the message that it came with and its position there; tells what it came to. */
export async function saveAll(list: readonly { id: number; index: number }[]): Promise<void> {
  say({ text: `Saving ${count(list.length)} attachments …`, tone: 'done' });
  const files: { name: string; bytes: Uint8Array }[] = [];
  for (const { id, index } of list) {
    const file = await mailroom.attachment(id, index);
    if (file) files.push(file);
  }
  const lost = list.length - files.length;
  if (files.length > 0) {
    const { downloadZip } = await import('client-zip');
    const names = ownNames(files.map(({ name }) => name));
    const zip = await downloadZip(
      files.map(({ bytes }, at) => ({ name: names[at], input: Uint8Array.from(bytes) })),
    ).blob();
    saveFile(zip, 'Attachments.zip');
  }
  say(
    lost === 0
      ? { text: `Saved ${count(files.length)} attachments in “Attachments.zip”.`, tone: 'done' }
      : {
          text: `Saved ${count(files.length)} attachments; ${count(lost)} can’t be read from storage any more.`,
          tone: 'trouble',
        },
  );
}
