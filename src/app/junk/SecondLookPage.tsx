import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Row } from '../../mailroom/border/rows';
import type { Judgement } from '../../mailroom/border/junk';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { SafeMessage } from '../reading/SafeMessage';
import { commandId, runAct, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { shortTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { useKeys } from '../ui/useKeys';
import { count, messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { EvidenceLists, scoreWords } from './Evidence';
import { RescueDialog, type Rescued } from './RescueDialog';

/** How many wait in the list beside the open one. */
const inSight = 60;

/** What an answer taught, in words. */
interface Learned {
  subject: string;
  before: number;
  after: number;
  because: string[];
}

/** An answer that was given; `settled`: the mailbox's revision that has it, null while it is under way. */
interface Answered {
  kind: 'junk' | 'rescued';
  settled: number | null;
}

/** What waits for a second look, which of it is open, and what each answer comes to. */
function useSecondLook() {
  const revision = useMailbox((s) => s.revision);
  const [passed, setPassed] = useState<ReadonlySet<number>>(new Set());
  const [answered, setAnswered] = useState<ReadonlyMap<number, Answered>>(new Map());
  const [learned, setLearned] = useState<Learned | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const {
    value,
    error,
    waiting: counting,
  } = useAnswer(async () => {
    const asked = useMailbox.getState().revision;
    const most = inSight + passed.size + answered.size;
    return { asked, ...(await mailroom.secondLook(most, [...answered.keys()])) };
  }, `${revision} ${passed.size} ${answered.size}`);
  // What waits again though it was answered was taken back by Undo: it counts among those that are left.
  const isBack = (id: number): boolean => {
    const settled = answered.get(id)?.settled ?? null;
    return settled !== null && value !== null && value.asked >= settled && value.again.includes(id);
  };
  const isAway = (id: number) => passed.has(id) || (answered.has(id) && !isBack(id));
  const waiting = value?.rows.filter(({ id }) => !isAway(id)) ?? [];
  const open = waiting.find(({ id }) => id === chosen) ?? waiting[0];
  const { value: judgement } = useAnswer(
    () => (open ? mailroom.judgement(open.id) : Promise.resolve(null)),
    `${open?.id ?? ''} ${revision}`,
    0,
    String(open?.id),
  );
  // What was marked is no longer among those that wait; what was only passed over still is.
  const left = (value?.total ?? 0) - (value?.rows ?? []).filter(({ id }) => isAway(id)).length;
  const done = { junk: 0, rescued: 0 };
  for (const [id, { kind, settled }] of answered) if (settled !== null && !isBack(id)) done[kind]++;

  // What is open stays open, though what was learned since may have put others before it.
  const openId = open?.id ?? null;
  if (openId !== chosen) setChosen(openId);

  const next = (row: Row) => {
    const at = waiting.findIndex(({ id }) => id === row.id);
    setChosen((waiting[at + 1] ?? waiting[at - 1])?.id ?? null);
  };
  const note = (id: number, its: Answered | null) =>
    setAnswered((old) => {
      const other = new Map(old);
      if (its) other.set(id, its);
      else other.delete(id);
      return other;
    });
  /** Carries an answer out, and says what was learned from it. */
  const answer = async (row: Row, act: () => Promise<boolean>, kind: Answered['kind']) => {
    // At once, so that the next key is meant for the next message, however fast it comes.
    next(row);
    note(row.id, { kind, settled: null });
    const before = mailroom.judgement(row.id);
    await before;
    if (!(await act())) return note(row.id, null);
    const [was, is] = [await before, await mailroom.judgement(row.id)];
    // What was changed has come to this page before that answer.
    note(row.id, { kind, settled: useMailbox.getState().revision });
    if (was && is) setLearned(learnedFrom(row, was, is));
  };
  const isJunk = () => open && void answer(open, () => runAct({ ids: [open.id] }, { do: 'mark', junk: true }), 'junk');
  const onlyThis = () =>
    open &&
    void answer(
      open,
      async () => tellOutcome(await mailroom.rescue(commandId(), { ids: [open.id] }, 'this', false)),
      'rescued',
    );
  const pass = () => {
    if (!open) return;
    next(open);
    setPassed((old) => new Set([...old, open.id]));
  };
  const step = (by: number) => {
    const at = waiting.findIndex(({ id }) => id === open?.id);
    const to = waiting[Math.max(0, Math.min(waiting.length - 1, at + by))];
    if (to) setChosen(to.id);
  };
  return {
    begun: passed.size + answered.size > 0,
    value,
    error,
    counting,
    waiting,
    open,
    judgement,
    left,
    done,
    learned,
    setChosen,
    answer,
    isJunk,
    onlyThis,
    pass,
    step,
  };
}

interface WaitingListProps {
  rows: readonly Row[];
  /** The filter has learned since: their scores are those from before. */
  counting: boolean;
  open: number;
  /** The score of the open one now; null as long as that is not known. */
  score: number | null;
  onOpen: (id: number) => void;
}

/** What waits, beside the open one, which is kept in sight: what was learned may have put others before it. */
function WaitingList({ rows, counting, open, score, onOpen }: WaitingListProps) {
  const list = useRef<HTMLOListElement>(null);
  const at = rows.findIndex(({ id }) => id === open);
  useEffect(() => {
    const item = list.current?.children[at];
    if (item) void item.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <ol
      ref={list}
      aria-label="Waiting"
      aria-busy={counting}
      className="max-h-[32rem] overflow-y-auto border border-base-300 max-lg:hidden"
    >
      {rows.map((row) => (
        <li key={row.id} className="border-b border-base-300 last:border-0">
          <button
            className={`block w-full px-2 py-1.5 text-left ${row.id === open ? 'bg-base-300' : 'hover:bg-base-200'}`}
            aria-current={row.id === open}
            onClick={() => onOpen(row.id)}
          >
            <span className="flex gap-2">
              <span className="min-w-0 flex-1 truncate font-semibold">{row.from.name || row.from.address}</span>
              <span data-score className="quiet text-sm tabular-nums">
                {(row.id === open && score !== null ? Math.floor(score) : row.score) ?? '–'}
                {counting && row.id !== open && ' …'}
              </span>
            </span>
            <span className="block truncate text-sm">{row.subject || 'No subject'}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}

/** Second look: junk that nobody marked, the most doubtful first, one key a message. */
export function SecondLookPage() {
  const overview = useMailbox((s) => s.overview);
  const look = useSecondLook();
  const { value, error, counting, waiting, open, judgement, left, done, learned, setChosen, isJunk, onlyThis, pass } =
    look;
  const [asking, setAsking] = useState<Rescued | null>(null);
  const now = useNow();
  const fromNowOn = async () => {
    if (!open) return;
    const message = await mailroom.open(open.id, true);
    setAsking({ selection: { ids: [open.id] }, address: open.from.address, listId: message?.listId ?? null });
  };
  useKeys({
    j: () => isJunk(),
    n: () => onlyThis(),
    f: () => void fromNowOn(),
    ' ': () => pass(),
    arrowdown: () => look.step(1),
    arrowup: () => look.step(-1),
  });

  if (!overview) return null;
  return (
    <Page
      title="Second look"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-sm" to="/junk-filter">
            Junk filter
          </Link>
        </>
      }
    >
      <p className="mb-3 max-w-prose">
        What is in Junk and you have not marked, the least like junk first, of each sender at first only the newest. The
        filter learns from each answer.
      </p>
      {error && <p className="border-l-4 border-error bg-base-200 px-3 py-2">{error}</p>}
      {!value && !error && <Waiting says="Ordering your junk by doubt …" />}
      {value && (
        <p className="mb-3 font-semibold" role="status">
          {messages(left)} left · {count(done.junk)} {done.junk === 1 ? 'was' : 'were'} junk · {count(done.rescued)}{' '}
          rescued
        </p>
      )}
      {learned && <LearnedWords learned={learned} />}
      {value && !open && (
        <p>
          {look.begun ? 'You have been through all of it.' : 'Nothing waits for a second look.'}{' '}
          <Link className="link" to="/junk">
            To Junk
          </Link>
        </p>
      )}
      {open && (
        <div className="grid gap-4 @3xl:grid-cols-[18rem_minmax(0,1fr)]">
          <WaitingList
            rows={waiting.slice(0, inSight)}
            counting={counting}
            open={open.id}
            score={judgement?.score ?? null}
            onOpen={setChosen}
          />
          <section aria-label="The most doubtful" className="min-w-0">
            <div className="mb-3 flex flex-wrap items-center gap-2">
              <Answer word="Junk" keyWord="J" onPress={isJunk} />
              <Answer word="Not junk" keyWord="N" onPress={onlyThis} main />
              <Answer word="Not junk, from now on …" keyWord="F" onPress={() => void fromNowOn()} />
              <Answer word="Pass over" keyWord="Space" onPress={pass} />
            </div>
            <div className="rounded border border-base-300">
              <SafeMessage key={open.id} row={open} when={shortTime(open.date, now)} />
              {judgement && (
                <div className="border-t border-base-300 px-4 py-3">
                  <h2 className="mb-1 font-semibold">{scoreWords(judgement.score)}, because of</h2>
                  <EvidenceLists judgement={judgement} />
                </div>
              )}
            </div>
          </section>
        </div>
      )}
      {asking && open && (
        <RescueDialog
          rescued={asking}
          onClose={() => setAsking(null)}
          onRescue={(rescue) => void look.answer(open, rescue, 'rescued')}
        />
      )}
    </Page>
  );
}

function Answer({
  word,
  keyWord,
  onPress,
  main = false,
}: {
  word: string;
  keyWord: string;
  onPress: () => void;

  main?: boolean;
}) {
  return (
    <button className={`btn btn-sm ${main ? 'btn-primary' : ''}`} aria-keyshortcuts={keyWord} onClick={onPress}>
      {word} <kbd className="key">{keyWord}</kbd>
    </button>
  );
}

function learnedFrom(row: Row, before: Judgement, after: Judgement): Learned {
  const was = new Map(before.evidence.map(({ says, weight }) => [says, weight]));
  const because = after.evidence
    .map(({ says, weight }) => ({ says, moved: Math.abs(weight - (was.get(says) ?? 0)) }))
    .filter(({ moved }) => moved > 0.001)
    .sort((a, b) => b.moved - a.moved)
    .slice(0, 3)
    .map(({ says }) => says);
  return { subject: row.subject || 'No subject', before: before.score, after: after.score, because };
}

function LearnedWords({ learned: { subject, before, after, because } }: { learned: Learned }) {
  const [from, to] = [Math.floor(before), Math.floor(after)];
  return (
    <p className="mb-3 border-l-4 border-primary bg-base-200 px-3 py-1.5 text-sm" role="status">
      Learned from “{subject}”:{' '}
      {from === to
        ? 'nothing new, it was judged so already.'
        : `such mail scores ${to} instead of ${from}${because.length ? `, mostly by ${because.join(', ')}` : ''}.`}
    </p>
  );
}
