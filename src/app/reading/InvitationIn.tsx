import { CalendarDays } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { GivenAnswer, SeenInvitation } from '../../mailroom/border/agenda';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { reopenItem } from '../agenda/itemDraft';
import { goingSoon } from '../stamps/usePress';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';

const answerWords: Record<GivenAnswer, [word: string, done: string]> = {
  accepted: ['Accept', 'You accepted'],
  tentative: ['Perhaps', 'You accepted tentatively'],
  declined: ['Decline', 'You declined'],
};

/** Answering: whether whoever invites is told, and what was answered. */
function Answering({ id, seen }: { id: number; seen: SeenInvitation }) {
  const office = useMailbox((s) => s.overview?.post.on === true);
  const [tell, setTell] = useState(true);
  const [busy, setBusy] = useState(false);
  const answer = async (given: GivenAnswer) => {
    setBusy(true);
    tellOutcome(await mailroom.answerInvitation(commandId(), id, given, tell && office ? goingSoon() : null));
    setBusy(false);
  };
  const given = seen.mine && seen.mine !== 'needs-action' ? seen.mine : null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      {given && <span className="text-sm font-semibold">{answerWords[given][1]}.</span>}
      {(Object.keys(answerWords) as GivenAnswer[]).map((one) => (
        <button
          key={one}
          className={`btn btn-sm ${one === 'accepted' && !given ? 'btn-primary' : 'btn-outline'}`}
          aria-pressed={given === one}
          disabled={busy}
          onClick={() => void answer(one)}
        >
          {answerWords[one][0]}
        </button>
      ))}
      {office ? (
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={tell}
            onChange={(event) => setTell(event.target.checked)}
          />
          tell {seen.by || 'whoever invites'}
          {seen.as && <span className="quiet"> as {seen.as}</span>}
        </label>
      ) : (
        <span className="quiet text-sm">Nobody is told: this mailbox has no post office.</span>
      )}
    </div>
  );
}

/** What a calendar that came with a message means: an invitation, a change, an answer. */
export function InvitationIn({ id }: { id: number }) {
  const revision = useMailbox((s) => s.revision);
  const { value: seen, error } = useAnswer(() => mailroom.invitation(id), `${id} ${revision}`);
  const [busy, setBusy] = useState(false);
  if (error) return <p className="m-4 border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>;
  if (!seen) return null;
  const takeUp = async () => {
    setBusy(true);
    tellOutcome(await mailroom.takeUpCalendar(commandId(), id));
    setBusy(false);
  };
  const wrong = seen.is === 'wrong' || seen.is === 'old';
  return (
    <section
      aria-label="Invitation"
      className={`mx-4 mt-3 flex gap-3 border-l-4 bg-base-200 px-3 py-2 ${wrong ? 'border-accent' : 'border-primary'}`}
    >
      <CalendarDays size={18} aria-hidden className="mt-0.5 shrink-0" />
      <div className="flex min-w-0 flex-1 flex-col gap-1">
        <p className="font-semibold">{seen.says}</p>
        {seen.title && (
          <p className="[overflow-wrap:anywhere]" dir="auto">
            {seen.title}
          </p>
        )}
        {seen.when && (
          <p className="text-sm">
            {seen.when}
            {seen.repeats && `, ${seen.repeats}`}
          </p>
        )}
        {seen.place && (
          <p className="text-sm" dir="auto">
            <span className="quiet">Where </span>
            {seen.place}
          </p>
        )}
        {(seen.by || seen.invited) && (
          <p className="text-sm" dir="auto">
            {seen.by && `${seen.by} invites. `}
            {seen.invited && `Of those invited: ${seen.invited}.`}
          </p>
        )}
        {seen.clashesInAll > 0 && (
          <div className="border-l-4 border-accent px-2 text-sm">
            <p className="font-semibold">
              In the way at that time: {seen.clashesInAll === 1 ? 'one thing' : `${count(seen.clashesInAll)} things`}
            </p>
            <ul>
              {seen.clashes.map((clash) => (
                <li key={`${clash.uid} ${clash.when}`}>
                  <button className="link" onClick={() => void reopenItem(clash.uid)}>
                    {clash.title}
                  </button>
                  , {clash.when}
                </li>
              ))}
            </ul>
          </div>
        )}
        {seen.remarks.length > 0 && (
          <details className="text-sm">
            <summary className="cursor-pointer">
              What of its calendar could not be read: {count(seen.remarks.length)}
            </summary>
            <ul>
              {seen.remarks.map((says, n) => (
                <li key={n}>{says}</li>
              ))}
            </ul>
          </details>
        )}
        {seen.is === 'invitation' && <Answering id={id} seen={seen} />}
        {(seen.is === 'cancelled' || seen.is === 'answer' || seen.is === 'shown') &&
          (seen.here ? (
            <p className="text-sm">It stands in your Agenda so.</p>
          ) : (
            <button className="btn self-start btn-primary btn-sm" disabled={busy} onClick={() => void takeUp()}>
              {seen.is === 'cancelled'
                ? 'Take it so into the Agenda'
                : seen.is === 'answer'
                  ? 'Count the answer'
                  : 'Put it into the Agenda'}
            </button>
          ))}
        {seen.uid && (
          <p className="flex gap-3 text-sm">
            <button className="link" onClick={() => void reopenItem(seen.uid ?? '')}>
              As it stands in the Agenda
            </button>
            <Link className="link" to="/agenda">
              To the Agenda
            </Link>
          </p>
        )}
      </div>
    </section>
  );
}
