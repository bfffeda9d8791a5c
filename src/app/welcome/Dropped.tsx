import { useState } from 'react';
import { messages } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { forgetSeen, type LastSeen } from '../state/lastSeen';
import { draftCopies, forgetCopies } from '../state/draftCopies';
import { saveFile } from '../ui/save';

interface Props {
  seen: LastSeen;
  busy: boolean;
  /** Begins an empty mailbox; whether it is there. */
  begin: () => Promise<boolean>;
  onPutAway: () => void;
}

/** The mailbox that was here is not here any more: the browser threw it away. Told before anything is begun anew. */
export function Dropped({ seen, busy, begin, onPutAway }: Props) {
  const [drafts] = useState(() => draftCopies());
  const { setup } = seen;
  const takeUp = async () => {
    if (setup === null || !(await begin())) return;
    tellOutcome(await mailroom.importSetup(commandId(), setup));
  };
  const saveDrafts = () => {
    const text = drafts.map(({ to, subject, text }) => [`To: ${to}`, `Subject: ${subject}`, '', text, ''].join('\n'));
    saveFile(new Blob([text.join('\n')], { type: 'text/plain' }), 'drafts.txt');
  };
  return (
    <section
      role="alert"
      aria-labelledby="dropped"
      className="flex flex-col items-start gap-3 border-l-4 border-error bg-base-200 p-4"
    >
      <h2 id="dropped" className="text-lg font-semibold">
        The browser has thrown your mailbox away
      </h2>
      <p className="max-w-prose">
        {messages(seen.messages)} were here on {exactTime(seen.at)}; now the browser’s storage for this page is empty.
        Browsers do that when the disk runs low, or when somebody clears their data. Free space on the disk, then bring
        the same files of mail in again.
        {setup === null
          ? ' The setup was too large to be kept twice.'
          : ' Register, rules, folders and labels are still known.'}
      </p>
      <div className="flex flex-wrap gap-2">
        {setup !== null && (
          <>
            <button className="btn btn-primary btn-sm" disabled={busy} onClick={() => void takeUp()}>
              Begin anew with that setup
            </button>
            <button
              className="btn btn-outline btn-sm"
              onClick={() => saveFile(new Blob([setup], { type: 'application/json' }), 'wide-sort-setup.json')}
            >
              Save that setup
            </button>
          </>
        )}
        {drafts.length > 0 && (
          <button className="btn btn-outline btn-sm" onClick={saveDrafts}>
            Save {drafts.length === 1 ? 'the draft' : `${drafts.length} drafts`}
          </button>
        )}
        <button
          className="btn btn-ghost btn-sm"
          onClick={() => {
            forgetSeen();
            onPutAway();
          }}
        >
          Put away
        </button>
      </div>
    </section>
  );
}

/** What was kept apart from the mailbox that is gone: another begins. */
export function forgetDropped(): void {
  forgetSeen();
  forgetCopies();
}
