import { Paperclip } from 'lucide-react';
import type { AttachmentInfo } from '../../core/mail/body';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { saveFile } from '../ui/save';
import { sizeWords } from '../ui/time';

/** The attachments of a message, each saved with one press. */
export function Attachments({ id, list }: { id: number; list: readonly AttachmentInfo[] }) {
  const save = async (index: number) => {
    const file = await mailroom.attachment(id, index);
    if (!file) return say({ text: 'The attachment can’t be read from storage any more.', tone: 'trouble', undo: null });
    // Whatever type the sender claims, the browser is only to save it.
    saveFile(new Blob([Uint8Array.from(file.bytes)], { type: 'application/octet-stream' }), file.name);
    say({ text: `Saved “${file.name}”.`, tone: 'done', undo: null });
  };
  return (
    <ul aria-label="Attachments" className="flex flex-wrap gap-2">
      {list.map((attachment, index) => (
        <li key={index}>
          <button
            className="btn h-auto min-h-7 max-w-72 py-1 font-normal btn-outline btn-xs"
            onClick={() => void save(index)}
            title={`Save ${attachment.name ?? 'unnamed attachment'} (${attachment.type})`}
          >
            <Paperclip size={13} aria-hidden />
            <span className="truncate">{attachment.name ?? 'Unnamed'}</span>
            <span className="quiet whitespace-nowrap">{sizeWords(attachment.size)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
