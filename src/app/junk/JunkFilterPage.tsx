import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { atLine } from '../../core/junk/atLine';
import { atMost } from '../../core/junk/margin';
import { lineOf, mildStrictness, mostKeepDays, type JunkSettings } from '../../core/junk/settings';
import type { Setup } from '../../core/line/setup';
import type { FilterReport } from '../../mailroom/border/junk';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { useDryRun } from '../dryrun/useDryRun';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { RunHere } from '../dryrun/RunHere';
import { SaveSorted } from '../dryrun/SaveSorted';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { NumberField, Switch } from '../ui/fields';
import { Halves, Page } from '../ui/Page';
import { usePart } from '../ui/usePart';
import { count, messages } from '../../core/text/sentences';
import { dayOf } from '../../core/text/time';
import { Waiting } from '../ui/Waiting';
import { Form } from '../ui/Form';
import { useFilterReport } from './useFilterReport';

const chartPart = () => import('./ScoreChart');
const caughtPart = () => import('./CaughtChart');

/** The junk filter: how strict it is, drawn on the person's own mail, and what becomes of junk. */
export function JunkFilterPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  const { carried, ...rest } = setup.junk;
  // Decided anew elsewhere, or undone, the draft begins again.
  return <JunkFilter key={`${JSON.stringify(rest)} ${carried?.length ?? 0}`} setup={setup} />;
}

const strictest = 95;

/** What strictness is called, up to and including each value. */
const bands: [upTo: number, name: string][] = [
  [5, 'Very mild'],
  [mildStrictness, 'Mild'],
  [50, 'Even'],
  [80, 'Strict'],
  [strictest, 'Very strict'],
];

/** The words below the slider, each in the middle of where it holds. */
const marks = [
  { at: 0, word: 'off' },
  ...bands.slice(1).map(([upTo, name], n) => ({ at: (bands[n][0] + 1 + upTo) / 2, word: name.toLowerCase() })),
];

function strictnessWords(strictness: number): string {
  if (strictness === 0) return 'Off: nothing is judged.';
  const name = bands.find(([upTo]) => strictness <= upTo)?.[1] ?? 'Very strict';
  return `${name}: junk begins at score ${100 - strictness}.`;
}

/** What saving a draft does, in words. */
function savedWords(before: JunkSettings, draft: JunkSettings): string {
  if (draft.strictness === before.strictness) return 'Changed what becomes of junk';
  if (draft.strictness === 0) return 'Turned the junk filter off';
  return `Drew the line of the junk filter at score ${lineOf(draft.strictness) ?? 0}`;
}

function JunkFilter({ setup }: { setup: Setup }) {
  const [search] = useSearchParams();
  // Whoever comes to look what it would do finds it drawn there; nothing is decided by that.
  const proposed = Math.round(Number(search.get('strictness')));
  const [draft, setDraft] = useState<JunkSettings>(() =>
    setup.junk.strictness === 0 && proposed > 0 && proposed <= strictest
      ? { ...setup.junk, strictness: proposed }
      : setup.junk,
  );
  const [runHere, setRunHere] = useState(true);
  const [saving, setSaving] = useState(false);
  const revision = useMailbox((s) => s.revision);
  const { report, progress } = useFilterReport();
  const [opened] = useState(() => Date.now());
  // Fewer days must not delete at once what had more before: they count from now for what is there already.
  const keepFrom = draft.keepDays === setup.junk.keepDays && setup.junk.keepFrom > 0 ? setup.junk.keepFrom : opened;
  const edits = [{ list: 'junk' as const, id: 'junk' as const, item: { ...draft, keepFrom } }];
  const answer = useDryRun(
    (most) => mailroom.dryRun(edits, null, undefined, most),
    `${JSON.stringify([draft.strictness, draft.toBin, draft.contactsSafe, draft.writtenToSafe])} ${revision}`,
    120,
  );
  const line = lineOf(draft.strictness);
  const set = (part: Partial<JunkSettings>) => setDraft({ ...draft, ...part });
  const changed = JSON.stringify(draft) !== JSON.stringify(setup.junk);
  const save = async () => {
    setSaving(true);
    const says = savedWords(setup.junk, draft);
    await mailroom.editSetup(commandId(), edits, says, runHere).then(tellOutcome);
    setSaving(false);
  };
  return (
    <Page
      title="Junk filter"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-sm" to="/second-look">
            Second look
          </Link>
        </>
      }
    >
      <p className="mb-4 max-w-prose">
        The filter gives each message a score from 0, surely wanted, to 100, surely junk. It learns from every message
        that you mark as junk (J) or rescue (N), and forgets what you undo. You draw the line.
      </p>
      <Halves
        left={
          <Form className="flex flex-col gap-5" onSubmit={() => void save()}>
            <Strictness draft={draft} set={set} report={report} />
            <NeverAsked draft={draft} set={set} />
            <WhatBecomes draft={draft} set={set} kept={setup.junk} />
            <BeginsWith draft={draft} set={set} report={report} />
            <RunHere on={runHere} onChange={setRunHere} />
            <div className="flex gap-2">
              <SaveSorted
                word={saving ? 'Saving …' : 'Save'}
                runHere={runHere}
                answer={answer}
                disabled={!changed || saving || Number.isNaN(draft.keepDays)}
              />
              <button type="button" className="btn btn-ghost" disabled={!changed} onClick={() => setDraft(setup.junk)}>
                Back to what it was
              </button>
            </div>
          </Form>
        }
        right={
          <div className="flex flex-col gap-6">
            <Scores report={report} progress={progress} line={line} />
            {report && report.validated.length > 0 && (
              <CaughtAndLost validated={report.validated} strictness={draft.strictness} />
            )}
            <DryRunPanel
              answer={answer}
              setup={setup}
              none={changed ? 'No message would change sides.' : 'Move the line to see which messages change sides.'}
            />
          </div>
        }
      />
    </Page>
  );
}

/** A part of the settings: the draft, and how it is changed. */
interface PartProps {
  draft: JunkSettings;
  set: (part: Partial<JunkSettings>) => void;
}

/** Where the line is drawn, and what that would come to. */
function Strictness({ draft, set, report }: PartProps & { report: FilterReport | null }) {
  return (
    <div>
      <label htmlFor="strictness" className="mb-1 block font-semibold">
        Strictness
      </label>
      <input
        id="strictness"
        type="range"
        min={0}
        max={strictest}
        step={1}
        className="range w-full range-primary range-sm"
        value={draft.strictness}
        aria-valuetext={strictnessWords(draft.strictness)}
        onChange={(e) => set({ strictness: Number(e.target.value) })}
      />
      <div aria-hidden className="quiet relative mx-3 h-4 text-xs">
        {marks.map(({ at, word }) => (
          <span
            key={word}
            className="absolute -translate-x-1/2 whitespace-nowrap"
            style={{ left: `${(100 * at) / strictest}%` }}
          >
            {word}
          </span>
        ))}
      </div>
      <p className="mt-1" role="status">
        {strictnessWords(draft.strictness)}
      </p>
      <AtThatLine report={report} line={lineOf(draft.strictness)} />
    </div>
  );
}

/** Whose mail is not judged. */
function NeverAsked({ draft, set }: PartProps) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold">Never asked about</legend>
      <Switch
        word="People in your contacts"
        on={draft.contactsSafe}
        onChange={(contactsSafe) => set({ contactsSafe })}
      />
      <Switch
        word="Everyone you ever wrote to"
        on={draft.writtenToSafe}
        onChange={(writtenToSafe) => set({ writtenToSafe })}
      />
    </fieldset>
  );
}

/** Where junk goes, and for how long. */
function WhatBecomes({ draft, set, kept }: PartProps & { kept: JunkSettings }) {
  const there = useMailbox((s) => s.overview?.places.find(({ place }) => place === 'junk')?.total ?? 0);
  const [now] = useState(() => Date.now());
  const changed = !draft.toBin && draft.keepDays !== kept.keepDays && !Number.isNaN(draft.keepDays);
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold">What becomes of junk</legend>
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <input
            type="radio"
            name="keep"
            className="radio radio-sm"
            checked={!draft.toBin}
            onChange={() => set({ toBin: false })}
          />
          Kept in Junk for
        </label>
        <NumberField
          label="Days in Junk"
          unit="days"
          least={1}
          most={mostKeepDays}
          value={draft.keepDays}
          onChange={(keepDays) => set({ keepDays })}
        />
      </div>
      {changed && (
        <p role="status" className="border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
          {there > 0 &&
            `${messages(there)} in Junk now will be deleted for good on ${dayOf(now + draft.keepDays * 86_400_000)} at the earliest. `}
          What comes there later, {draft.keepDays === 1 ? 'a day' : `${count(draft.keepDays)} days`} after it came.
        </p>
      )}
      <label className="flex items-center gap-2">
        <input
          type="radio"
          name="keep"
          className="radio radio-sm"
          checked={draft.toBin}
          onChange={() => set({ toBin: true })}
        />
        Straight to the Bin, kept there for 30 days
      </label>
      <p className="quiet text-sm">
        Each row shows its date; the Logbook tells what was deleted. Other days count from today for what is there
        already.
      </p>
    </fieldset>
  );
}

/** What the filter knows before anything is marked, and what it learned since. */
function BeginsWith({ draft, set, report }: PartProps & { report: FilterReport | null }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">What it begins with</legend>
      <Switch
        word="The model that comes with Wide Sort"
        what={
          draft.carried !== null
            ? 'A setup from elsewhere brought its own; that counts.'
            : report && !report.hasShipped
              ? 'It could not be fetched from the server.'
              : 'Made from an open collection of old mail. Off: it knows only what you marked.'
        }
        on={draft.shipped}
        onChange={(shipped) => set({ shipped })}
      />
      {report && (
        <p className="text-sm">
          Beyond that it learned from {count(report.marked.junk)} marked as junk and {count(report.marked.good)} rescued
          or marked as not junk.
        </p>
      )}
    </fieldset>
  );
}

/** The person's own mail by score. */
function Scores({
  report,
  progress,
  line,
}: {
  report: FilterReport | null;
  progress: ReturnType<typeof useFilterReport>['progress'];
  line: number | null;
}) {
  const Chart = usePart(chartPart, true)?.ScoreChart;
  return (
    <section aria-label="Scores of your mail" aria-busy={report === null}>
      <h2 className="text-lg font-semibold">Your mail by score</h2>
      {report === null ? (
        <Waiting says="Judging your mail …" progress={progress && { what: 'Judging', ...progress }} />
      ) : report.judged === 0 ? (
        <p>There is no mail in the Inbox or in Junk to judge yet.</p>
      ) : (
        <>
          {Chart && <Chart report={report} line={line} />}
          <p className="quiet text-sm">All {messages(report.judged)} in the Inbox and Junk.</p>
        </>
      )}
    </section>
  );
}

/** How good the filter is at every strictness, on what the person marked. */
function CaughtAndLost({ validated, strictness }: { validated: FilterReport['validated']; strictness: number }) {
  const Chart = usePart(caughtPart, true)?.CaughtChart;
  return (
    <section aria-label="Caught and lost">
      <h2 className="text-lg font-semibold">Caught and lost, by strictness</h2>
      {Chart && <Chart validated={validated} strictness={strictness} most={strictest} />}
      <p className="quiet text-sm">
        On {count(validated.length)} that you marked, each judged by a filter that had not learned from it.
      </p>
    </section>
  );
}

/** A share in per cent, rounded up: `0.3 %`, `22 %`. */
const inHundred = (share: number): string =>
  share < 10 ? `${(Math.ceil(share * 10) / 10).toFixed(1)} %` : `${Math.ceil(share)} %`;

/** What the line would come to on the mail that the person marked, by a model that had not seen each. */
function AtThatLine({ report, line }: { report: FilterReport | null; line: number | null }) {
  if (report === null || line === null) return null;
  if (report.validated.length === 0)
    return (
      <p className="quiet text-sm">
        How good that is can be said once you have marked five messages as junk and five as not: a second look does it
        fastest.
      </p>
    );
  const { caught, lost, lostCount, good } = atLine(report.validated, line);
  return (
    <p className="text-sm" role="status">
      On what you marked, each judged without its own mark: <strong>{(caught ?? 0).toFixed(0)} % of junk caught</strong>
      ,{' '}
      <strong className={lostCount ? 'text-accent' : ''}>
        {lostCount === 0
          ? 'no wanted message lost'
          : `${messages(lostCount)} wanted lost (${(lost ?? 0).toFixed(1)} %)`}
      </strong>
      {good > 0 &&
        ` of ${count(good)}. Of all wanted mail like it ${inHundred(atMost(lostCount, good))} at most, in 19 of 20 such counts`}
      .
    </p>
  );
}
