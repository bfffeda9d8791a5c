import { useMemo, useState } from 'react';
import { readMany } from './readMany';
import { mergeEntries, mostCsv, type registerFromCsv } from '../../core/senders/registerCsv';
import type { Standing } from '../../core/senders/register';
import type { Setup } from '../../core/line/setup';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { RunHere } from '../dryrun/RunHere';
import { SaveSorted } from '../dryrun/SaveSorted';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useLeave } from '../ui/useLeave';
import { Form } from '../ui/Form';
import { count } from '../../core/text/sentences';

const entriesWord = (n: number) => `${count(n)} ${n === 1 ? 'entry' : 'entries'}`;

/** Several entries at once, pasted or from a CSV file. */
export function ManyPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  return setup ? <Many setup={setup} /> : null;
}

interface SourcesProps {
  text: string;
  trouble: string | null;
  onFile: (file: File | undefined) => void;
  onText: (text: string) => void;
}

/** Where entries come from: a file, or what is pasted. */
function Sources({ text, trouble, onFile, onText }: SourcesProps) {
  return (
    <>
      <div>
        <label htmlFor="many-file" className="mb-1 block font-semibold">
          A CSV file
        </label>
        <input
          id="many-file"
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="file-input w-full"
          onChange={(e) => onFile(e.target.files?.[0])}
        />
        {trouble && (
          <p className="mt-1 border-l-4 border-error bg-base-200 px-3 py-1" role="alert">
            {trouble}
          </p>
        )}
      </div>
      <div>
        <label htmlFor="many-text" className="mb-1 block font-semibold">
          Or paste: one address or domain a line
        </label>
        <textarea
          id="many-text"
          className="textarea h-48 w-full font-mono"
          spellCheck={false}
          value={text}
          aria-describedby="many-help"
          onChange={(e) => onText(e.target.value)}
        />
        <p id="many-help" className="quiet text-sm">
          A first row with the columns kind, value, subdomains, except, standing, since and why is understood; only
          value is needed.
        </p>
      </div>
    </>
  );
}

interface WhatWasReadProps {
  /** Nothing was given yet. */
  nothing: boolean;
  /** Why it could not be read. */
  error: string | null;
  /** It is still being read. */
  waiting: boolean;
  merged: ReturnType<typeof mergeEntries>;
  wrong: ReturnType<typeof registerFromCsv>['wrong'];
}

function WhatWasRead({ nothing, error, waiting, merged, wrong }: WhatWasReadProps) {
  return (
    <section aria-label="What was read">
      <h2 className="text-lg font-semibold">What was read</h2>
      {nothing ? (
        <p className="quiet">Nothing yet.</p>
      ) : error !== null ? (
        <p role="alert">It could not be read: {error}</p>
      ) : waiting ? (
        <p role="status">Reading …</p>
      ) : (
        <p role="status">
          {count(merged.added)} new, {count(merged.changed)} that change an entry, {count(merged.same)} there already,{' '}
          <strong className={wrong.length ? 'text-accent' : ''}>{count(wrong.length)} that can’t be taken</strong>.
        </p>
      )}
      {wrong.length > 0 && (
        <div className="mt-2 max-h-64 overflow-auto" tabIndex={0} role="region" aria-label="Rows that can’t be taken">
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Row</th>
                <th>What stands there</th>
                <th>Why not</th>
              </tr>
            </thead>
            <tbody>
              {wrong.slice(0, 500).map(({ row, text: what, reason }) => (
                <tr key={row}>
                  <td className="tabular-nums">{row}</td>
                  <td className="max-w-56 truncate font-mono" title={what}>
                    {what}
                  </td>
                  <td>{reason}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

const nothingRead: ReturnType<typeof registerFromCsv> = { entries: [], wrong: [] };

function Many({ setup }: { setup: Setup }) {
  const leave = useLeave();
  const revision = useMailbox((s) => s.revision);
  const [text, setText] = useState('');
  const [file, setFile] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [standing, setStanding] = useState<Standing>('blocked');
  const [runHere, setRunHere] = useState(true);
  const [saving, setSaving] = useState(false);
  const [opened] = useState(() => Date.now());
  // Another text is another question, whatever it begins with.
  const [version, setVersion] = useState(0);
  const question = `${version} ${standing}`;
  const reading = useAnswer(async () => ({ ...(await readMany(text, standing, opened)), question }), question);
  const read = reading.value ?? nothingRead;
  const waiting = reading.waiting || (reading.error === null && reading.value?.question !== question);
  const { edits, merged } = useMemo(() => {
    let made = 0;
    const together = mergeEntries(setup.register, read.entries, () => `many-${opened}-${made++}`);
    const list = together.edits.map((item): SetupEdit => ({ list: 'register', id: item.id, item }));
    return { edits: list, merged: together };
  }, [read, opened, setup.register]);
  const answer = useAnswer(() => mailroom.dryRun(edits, null), `${question} ${waiting} ${revision}`, 250);
  const take = (taken: string, from: string | null) => {
    setFile(from);
    setText(taken);
    setVersion(version + 1);
  };

  const pick = async (picked: File | undefined) => {
    if (!picked) return;
    if (picked.size > mostCsv) return setTrouble(`${picked.name} is larger than 5 MB: part it into several files.`);
    const bytes = new Uint8Array(await picked.arrayBuffer());
    if (bytes.subarray(0, 4_000).includes(0))
      return setTrouble(`${picked.name} is no text. Save it as CSV first, in UTF-8.`);
    setTrouble(null);
    take(new TextDecoder().decode(bytes), picked.name);
  };
  const save = async () => {
    setSaving(true);
    const says = `Took up ${entriesWord(edits.length)} of the Register${file ? ` from ${file}` : ''}`;
    const outcome = await mailroom.editSetup(commandId(), edits, says, runHere);
    setSaving(false);
    if (tellOutcome(outcome)) leave('/register');
  };

  return (
    <Page title="Several entries at once">
      <Halves
        left={
          <Form className="flex flex-col gap-4" onSubmit={() => void save()}>
            <Sources
              text={text}
              trouble={trouble}
              onFile={(picked) => void pick(picked)}
              onText={(typed) => take(typed, null)}
            />
            <label className="flex items-center gap-2">
              Rows without a standing are
              <select
                className="select select-sm"
                value={standing}
                onChange={(e) => setStanding(e.target.value as Standing)}
              >
                <option value="blocked">Blocked</option>
                <option value="safe">Safe</option>
              </select>
            </label>
            <RunHere by="them" on={runHere} onChange={setRunHere} />
            <SaveSorted
              word={saving ? 'Taking up …' : `Take up ${entriesWord(edits.length)}`}
              runHere={runHere}
              answer={answer}
              disabled={edits.length === 0 || saving || waiting}
            />
          </Form>
        }
        right={
          <div className="flex flex-col gap-5">
            <WhatWasRead
              nothing={text.trim() === ''}
              error={reading.error}
              waiting={waiting}
              merged={merged}
              wrong={read.wrong}
            />
            {edits.length > 0 && <DryRunPanel answer={answer} setup={setup} none="No message here would change." />}
          </div>
        }
      />
    </Page>
  );
}
