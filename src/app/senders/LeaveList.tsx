import { LogOut } from 'lucide-react';
import { useState } from 'react';
import { mailroom } from '../../mailroom/client';
import type { SenderReport } from '../../mailroom/border/senderTable';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { dayOf } from '../../core/text/time';
import { messages } from '../../core/text/sentences';

/** The ways to leave a list from a mailbox that can’t ask for it itself: the person’s own mail. */
function OwnWays({ ways }: { ways: NonNullable<SenderReport['leaving']>['ways'] }) {
  const mailTo = (to: string, subject: string, text: string) =>
    `mailto:${encodeURIComponent(to)}?${new URLSearchParams({ subject, body: text }).toString().replace(/\+/g, '%20')}`;
  return (
    <div>
      <p>Your own mail has no post office here. The list says how it is left:</p>
      <ul className="ml-4 list-disc">
        {ways.map((way) =>
          way.by === 'mail' ? (
            <li key={way.to}>
              by a message with the subject “{way.subject}” to{' '}
              <a className="link [overflow-wrap:anywhere]" href={mailTo(way.to, way.subject, way.text)}>
                {way.to}
              </a>
            </li>
          ) : (
            <li key={way.url}>
              on a page, which learns that you were there:{' '}
              <a className="link [overflow-wrap:anywhere]" href={way.url} target="_blank" rel="noopener noreferrer">
                {way.url}
              </a>
            </li>
          ),
        )}
      </ul>
    </div>
  );
}

/** Leaving the list of a sender, by the ways that its messages name; and what came after it was left. */
export function LeaveList({ report }: { report: SenderReport }) {
  const office = useMailbox((s) => s.overview?.post.on === true);
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const { leaving, left } = report;
  const way = leaving?.ways[0];
  const leave = async (by: 'one-click' | 'mail') => {
    if (!leaving) return;
    setBusy(true);
    // The id belongs to this press: sent twice, it is left once.
    tellOutcome(await mailroom.leaveList(commandId(), leaving.message, by, -new Date().getTimezoneOffset()), false);
    setBusy(false);
    setAsking(false);
  };
  return (
    <div className="mt-2 flex flex-col gap-2 text-sm">
      {left.map(({ list, after, latest }) => (
        <p key={list.id} className={after > 0 ? 'border-l-4 border-accent bg-base-200 px-3 py-1.5' : 'quiet'}>
          You left this list on {dayOf(list.at)}
          {list.by === 'mail' ? ', by a message to it' : ', by one request'}.{' '}
          {after === 0 || latest === null
            ? 'Nothing came after that.'
            : `${messages(after)} came after that, the last on ${dayOf(latest)}: what goes on can be blocked.`}
        </p>
      ))}
      {leaving && way && !office && left.length === 0 && <OwnWays ways={leaving.ways} />}
      {way && way.by !== 'page' && office && left.length === 0 && (
        <button className="btn gap-1 self-start btn-sm" onClick={() => setAsking(true)}>
          <LogOut size={15} aria-hidden /> Leave the list …
        </button>
      )}
      {way?.by === 'page' && office && left.length === 0 && (
        <p>
          This list is left on a page of its own, which learns that you were there:{' '}
          <a className="link [overflow-wrap:anywhere]" href={way.url} target="_blank" rel="noopener noreferrer">
            {way.url}
          </a>
        </p>
      )}
      {asking && leaving && (
        <Dialog title="Leave the list?" onClose={() => setAsking(false)}>
          <p>
            {leaving.listId ? (
              <>
                The list <span className="font-mono">{leaving.listId}</span> says
              </>
            ) : (
              'The sender says'
            )}{' '}
            how it is left. It can’t be undone from here: to get it again you would have to join it again.
          </p>
          <ul className="mt-3 flex flex-col gap-3">
            {leaving.ways.map((one) =>
              one.by === 'one-click' ? (
                <li key={one.url}>
                  <button className="btn btn-primary btn-sm" disabled={busy} onClick={() => void leave('one-click')}>
                    Leave by one request
                  </button>
                  <p className="quiet mt-1 text-sm">
                    The post office asks <span className="font-mono">{new URL(one.url).host}</span> to take you off.
                  </p>
                </li>
              ) : one.by === 'mail' ? (
                <li key={one.to}>
                  <button className="btn btn-sm" disabled={busy} onClick={() => void leave('mail')}>
                    Leave by a message
                  </button>
                  <p className="quiet mt-1 text-sm">
                    “{one.subject}” goes to <span className="font-mono">{one.to}</span>, from the account that gets it.
                  </p>
                </li>
              ) : null,
            )}
          </ul>
          <button className="btn mt-4 btn-ghost btn-sm" onClick={() => setAsking(false)}>
            Stay on it
          </button>
        </Dialog>
      )}
    </div>
  );
}
