import { Download, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { AttachmentInfo } from '../../core/mail/body';
import { attachmentName, longestSeen, seenAs, type Seen } from '../../core/mail/attachmentKind';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { Waiting } from '../ui/Waiting';

interface AttachmentSeenProps {
  id: number;
  index: number;
  attachment: AttachmentInfo;
  onSave: () => void;
  onClose: () => void;
}

/** What of an attachment is shown; null while it is fetched, `gone` where its bytes can’t be read. */
function useSeen(id: number, index: number): { seen: Seen | 'gone' | null; address: string | null } {
  const [seen, setSeen] = useState<Seen | 'gone' | null>(null);
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    let made: string | null = null;
    void mailroom.attachment(id, index).then((file) => {
      if (!current) return;
      if (!file) return setSeen('gone');
      const its = seenAs(file.bytes);
      // By its signature, not by what the sender says: the browser draws it, and runs nothing.
      if (its.kind === 'picture') {
        made = URL.createObjectURL(new Blob([Uint8Array.from(file.bytes)], { type: its.type }));
        setAddress(made);
      }
      setSeen(its);
    });
    return () => {
      current = false;
      if (made) URL.revokeObjectURL(made);
    };
  }, [id, index]);
  return { seen, address };
}

/** An attachment looked at without saving it: a picture, or a text as it stands. */
export function AttachmentSeen({ id, index, attachment, onSave, onClose }: AttachmentSeenProps) {
  const { seen, address } = useSeen(id, index);
  const [broken, setBroken] = useState(false);
  const name = attachmentName(attachment, index);
  return (
    <figure className="m-0 rounded border border-base-300" aria-label={name}>
      <figcaption className="flex items-center gap-2 border-b border-base-300 px-3 py-1 text-sm">
        <span className="min-w-0 flex-1 truncate font-semibold" dir="auto">
          {name}
        </span>
        <button className="btn btn-ghost btn-xs" onClick={onSave}>
          <Download size={14} aria-hidden /> Save
        </button>
        <button className="btn btn-square btn-ghost btn-xs" onClick={onClose} aria-label="Close it">
          <X size={14} aria-hidden />
        </button>
      </figcaption>
      <div role="region" aria-label="The attachment" tabIndex={0} className="max-h-[70vh] overflow-auto p-3">
        {seen === null && <Waiting says="Opening the attachment …" />}
        {seen === 'gone' && <p>It can’t be read from storage any more.</p>}
        {(broken || (seen !== 'gone' && seen?.kind === 'nothing')) && (
          <p>This can’t be shown here. Save it to open it with another program.</p>
        )}
        {address && !broken && (
          <img src={address} alt={name} className="max-h-[64vh] max-w-full" onError={() => setBroken(true)} />
        )}
        {seen !== null && seen !== 'gone' && seen.kind === 'text' && (
          <>
            <pre className="font-mono text-sm [overflow-wrap:anywhere] whitespace-pre-wrap" dir="auto">
              {seen.text}
            </pre>
            {seen.cut && (
              <p className="quiet mt-2 text-sm">It goes on: here its first {count(longestSeen)} characters.</p>
            )}
          </>
        )}
      </div>
    </figure>
  );
}
