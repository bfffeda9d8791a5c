import { mailroom } from '../../mailroom/client';
import { sizeWords } from '../../core/text/time';
import { Dialog } from '../ui/Dialog';
import { useAnswer } from '../ui/useAnswer';
import { Waiting } from '../ui/Waiting';

/** What header fields are for, in words (RFC 5322, section 3.6, and the standards that add to it). */
const words: Record<string, string> = {
  from: 'who wrote it',
  sender: 'who sent it for them',
  'reply-to': 'where answers go',
  to: 'to whom',
  cc: 'to whom as well',
  bcc: 'to whom, unknown to the others',
  date: 'when it was written',
  subject: 'about what',
  'message-id': 'its own name',
  'in-reply-to': 'what it answers',
  references: 'its conversation',
  'return-path': 'where it goes back to where it can’t be delivered',
  received: 'a server that passed it on',
  'delivered-to': 'by which address it came',
  'mime-version': 'that it may have parts',
  'content-type': 'what its body is',
  'content-transfer-encoding': 'how its body is encoded',
  'list-id': 'its mailing list',
  'list-unsubscribe': 'how the list is left',
  'auto-submitted': 'whether a machine wrote it',
  precedence: 'how it is to be treated',
  'authentication-results': 'what the receiving server found out about the sender',
  'dkim-signature': 'a signature of the sending server',
  'received-spf': 'whether that server may send for the domain',
  'user-agent': 'the program it was written with',
  'x-mailer': 'the program it was written with',
};

/** All header fields of a message, in words, and its source as it stands. */
export function SourceDialog({ id, onClose }: { id: number; onClose: () => void }) {
  const { value, waiting } = useAnswer(() => mailroom.source(id), String(id));
  return (
    <Dialog title="Header fields and source" wide onClose={onClose}>
      {waiting && !value ? (
        <Waiting says="Reading …" />
      ) : !value ? (
        <p>It can’t be read from storage any more.</p>
      ) : (
        <>
          <dl
            tabIndex={0}
            aria-label="Header fields"
            className="max-h-[40vh] overflow-y-auto border-y border-base-300 text-sm"
          >
            {value.fields.map(({ name, value: said }, n) => (
              <div key={n} className="border-b border-base-300 py-1 [overflow-wrap:anywhere]">
                <dt>
                  <span className="font-semibold">{name}</span>
                  {words[name.toLowerCase()] && <span className="quiet">: {words[name.toLowerCase()]}</span>}
                </dt>
                <dd className="font-mono" dir="auto">
                  {said}
                </dd>
              </div>
            ))}
          </dl>
          <details className="mt-3">
            <summary className="cursor-pointer font-semibold">The source, {sizeWords(value.size)}</summary>
            <pre tabIndex={0} aria-label="Source" className="mt-1 max-h-[40vh] overflow-auto bg-base-200 p-2 text-xs">
              {value.text}
              {value.size > value.text.length && '\n…'}
            </pre>
          </details>
        </>
      )}
    </Dialog>
  );
}
