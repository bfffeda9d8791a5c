import { FileDown, Send } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Account } from '../../core/mail/account';
import type { AnswerStart } from '../../mailroom/border/answers';
import { mailroom } from '../../mailroom/client';
import { wherePath, type Where } from '../paths';
import { forgetAnswer, keepAnswer, unfinished, writtenTo, type Written } from '../state/unfinishedAnswers';
import { saveFile } from '../ui/save';
import { commandId, say, startAnswering, throwAway } from '../state/desk';
import { useMailbox } from '../state/overview';
import { exactTime } from '../../core/text/time';
import { messages } from '../../core/text/sentences';

/** What an answer begins with and what of it was written; each null until it is here. */
function useWriting(id: number, all: boolean) {
  const [start, setStart] = useState<AnswerStart | null>(null);
  const [written, setWritten] = useState<Written | null>(() => writtenTo(id));
  const [gone, setGone] = useState(false);
  useEffect(() => {
    let current = true;
    void mailroom.open(id, true).then(async (message) => {
      const begun = await mailroom.startAnswer(id, all, message ? exactTime(message.row.date) : '');
      if (!current) return;
      if (!begun) return setGone(true);
      setStart(begun);
      const { account, recipients, copies, subject, text } = begun;
      setWritten((old) => old ?? { account: account ?? '', recipients, copies, subject, text });
    });
    return () => {
      current = false;
    };
  }, [id, all]);
  const change = (some: Partial<Written>) => {
    if (!written) return;
    const next = { ...written, ...some };
    setWritten(next);
    keepAnswer(id, all, next);
  };
  /** What came into the conversation meanwhile: true where that is more than the person was told of. */
  const crossed = async (): Promise<boolean> => {
    const now = await mailroom.startAnswer(id, all, '');
    if (!start || !now || now.newer <= start.newer) return false;
    setStart({ ...start, newer: now.newer, newest: now.newest });
    return true;
  };
  return { start, written, gone, change, crossed };
}

interface OlderMessageProps {
  start: AnswerStart;
  where: Where;
  onNewest: (newest: number) => void;
}

/** That an older message is answered, and the way to the newest. */
function OlderMessage({ start: { newest, newer }, where, onNewest }: OlderMessageProps) {
  if (!newest) return null;
  return (
    <p role="alert" className="border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm">
      You answer an older message: {messages(newer)} came after it, the newest from{' '}
      {newest.from.name || newest.from.address} at {exactTime(newest.date)}.{' '}
      <Link
        className="link font-semibold"
        to={wherePath({ ...where, message: newest.id })}
        onClick={() => onNewest(newest.id)}
      >
        Answer the newest
      </Link>
    </p>
  );
}

interface HeadsProps {
  written: Written;
  accounts: readonly Account[];
  change: (some: Partial<Written>) => void;
}

/** From, to, and about what. */
function Heads({ written, accounts, change }: HeadsProps) {
  return (
    <>
      {accounts.length === 0 ? (
        <p className="text-sm">
          Say first from which address you write:{' '}
          <Link className="link" to="/accounts">
            add an account
          </Link>
          .
        </p>
      ) : (
        <label className="flex items-center gap-2 text-sm">
          <span className="w-14">From</span>
          <select
            className="select w-full select-sm"
            value={written.account}
            onChange={(event) => change({ account: event.target.value })}
          >
            <option value="" disabled hidden>
              Choose …
            </option>
            {accounts.map(({ id: account, name, address }) => (
              <option key={account} value={account}>
                {name} ({address})
              </option>
            ))}
          </select>
        </label>
      )}
      {(
        [
          ['To', 'recipients'],
          ['Cc', 'copies'],
          ['Subject', 'subject'],
        ] as const
      ).map(([word, name]) => (
        <label key={name} className="flex items-center gap-2 text-sm">
          <span className="w-14">{word}</span>
          <input
            className="input input-sm w-full"
            value={written[name]}
            onChange={(event) => change({ [name]: event.target.value })}
          />
        </label>
      ))}
    </>
  );
}

/** An answer as it stands, and by what it goes. */
interface Sending {
  id: number;
  all: boolean;
  written: Written | null;
  crossed: () => Promise<boolean>;
  /** Whether there is a post office: else the answer is given as a file. */
  office: boolean;
}

/** Sending an answer, or giving it as a file; why it was not. */
function useSending({ id, all, written, crossed, office }: Sending) {
  const [error, setError] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  // One command for this answer, however often it is tried: the post office and Sent never have it twice.
  const [command] = useState(commandId);
  const zone = () => -new Date().getTimezoneOffset();
  const toFile = async (answer: Written) => {
    const file = await mailroom.answerFile(command, { to: id, ...answer }, zone());
    if (!file.ok) return setError(file.error);
    setError(null);
    keepAnswer(id, all, answer);
    saveFile(file.blob, file.name);
    say({ text: `Saved ${file.name}. The answer stays in Drafts until it is thrown away.`, tone: 'done' });
  };
  const toPost = async (answer: Written) => {
    const outcome = await mailroom.sendAnswer(command, { to: id, ...answer }, zone());
    if (!outcome.ok) return setError(outcome.error);
    forgetAnswer(id);
    startAnswering(null);
    say({ text: `${outcome.receipt.says}. It stands in Sent.`, tone: 'done' });
  };
  const send = async () => {
    if (!written || sending) return;
    setSending(true);
    const [not, same] = office ? ['sent', 'send'] : ['saved', 'save'];
    if (await crossed())
      setError(`It was not ${not} yet: a newer message came while you wrote. Look at it, or ${same} it all the same.`);
    else await (office ? toPost(written) : toFile(written));
    setSending(false);
  };
  return { error, sending, send };
}

interface ButtonsProps {
  office: boolean;
  sending: boolean;
  onSend: () => void;
  onDiscard: () => void;
}

/** What is done with an answer. */
const Buttons = ({ office, sending, onSend, onDiscard }: ButtonsProps) => (
  <div className="flex flex-wrap items-center gap-2">
    <button
      className="btn btn-primary btn-sm"
      onClick={onSend}
      disabled={sending}
      title={office ? 'Send (Ctrl+Enter)' : 'Save as a file, for the program with which you send (Ctrl+Enter)'}
    >
      {office ? <Send size={15} aria-hidden /> : <FileDown size={15} aria-hidden />}{' '}
      {!office ? 'Save as a file' : sending ? 'Sending …' : 'Send'}
    </button>
    <button className="btn btn-ghost btn-sm" onClick={onDiscard}>
      Discard
    </button>
    <span className="quiet ml-auto text-xs">
      {office
        ? 'Plain text. It stands in Drafts, kept in this browser as you type, until sent or discarded.'
        : 'Your own mail has no post office here: nothing is sent. Send the file (.eml) with the program that you send with.'}
    </span>
  </div>
);

/** An answer being written, in plain text, with what it answers quoted below. */
export function AnswerPanel({ id, all, where }: { id: number; all: boolean; where: Where }) {
  const accounts = useMailbox((s) => s.overview?.setup.accounts ?? []);
  const office = useMailbox((s) => s.overview?.post.on === true);
  const { start, written, gone, change, crossed } = useWriting(id, all);
  const { error, sending, send } = useSending({ id, all, written, crossed, office });
  const panel = useRef<HTMLElement>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const ready = start !== null && written !== null;
  useEffect(() => {
    if (!ready) return;
    area.current?.focus({ preventScroll: true });
    area.current?.setSelectionRange(0, 0);
    panel.current?.scrollIntoView({ block: 'start' });
  }, [ready]);

  /** Leaves this answer for another or none; what was typed of it can be brought back. */
  const leave = (to: { id: number; all: boolean } | null) => {
    const begun = unfinished().find((one) => one.id === id);
    if (begun) throwAway(begun);
    startAnswering(to);
  };
  if (gone) return <p className="m-4 font-semibold text-error">The message that is answered is not here any more.</p>;
  if (!ready || !written) return <p className="quiet p-4">Preparing the answer …</p>;
  return (
    <section
      ref={panel}
      aria-label={all ? 'Reply to all' : 'Reply'}
      className="m-3 flex flex-col gap-2 rounded border-2 border-primary p-3"
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void send();
        if (event.key === 'Escape') startAnswering(null);
      }}
    >
      <h3 className="font-semibold">{all ? 'Reply to all' : 'Reply'}</h3>
      <OlderMessage start={start} where={where} onNewest={(newest) => leave({ id: newest, all })} />
      <Heads written={written} accounts={accounts} change={change} />
      <textarea
        ref={area}
        aria-label="Text"
        className="textarea min-h-56 w-full font-mono text-sm"
        value={written.text}
        onChange={(event) => change({ text: event.target.value })}
      />
      {error && (
        <p role="alert" className="font-semibold text-error">
          {error}
        </p>
      )}
      <Buttons office={office} sending={sending} onSend={() => void send()} onDiscard={() => leave(null)} />
    </section>
  );
}
