import { useMemo, useState } from 'react';
import { readMany } from './readMany';
import { mergeEntries, mostCsv, type CsvEntries } from '../../core/senders/registerCsv';
import type { Entry, Standing } from '../../core/senders/register';
import type { Setup } from '../../core/line/setup';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { useDryRun } from '../dryrun/useDryRun';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { RunHere } from '../dryrun/RunHere';
import { SaveSorted } from '../dryrun/SaveSorted';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useLeave } from '../ui/useLeave';
import { Form } from '../ui/Form';
import { Guards } from './Guards';
import { WhatWasRead } from './WhatWasRead';
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
          After a comma a line may say “safe” or “blocked”, and after another why. A first row may name the columns
          kind, value, subdomains, except, standing, since and why; only value is needed.
        </p>
      </div>
    </>
  );
}

const nothingRead: CsvEntries = { entries: [], rows: [], wrong: [], wrongCount: 0, head: null };

/** What some entries would do to the mail here, and what speaks against them. */
function useManyChecks(edits: SetupEdit[], entries: Entry[], asked: string) {
  const answer = useDryRun((most) => mailroom.dryRun(edits, null, undefined, most), asked, 250);
  const check = useAnswer(() => mailroom.entryGuards(entries), asked, 250);
  return { answer, check };
}

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
  const { edits, entries, takings } = useMemo(() => {
    let made = 0;
    const together = mergeEntries(setup.register, read.entries, () => `many-${opened}-${made++}`);
    const list = together.edits.map((item): SetupEdit => ({ list: 'register', id: item.id, item }));
    return { edits: list, entries: together.edits, takings: together.takings };
  }, [read, opened, setup.register]);
  const { answer, check } = useManyChecks(edits, entries, `${question} ${waiting} ${revision}`);
  const guards = check.value ?? [];
  const [sureOf, setSureOf] = useState<string | null>(null);
  const sure = sureOf === question;
  const take = (taken: string, from: string | null) => {
    setTrouble(taken.length > mostCsv ? 'This is more than 5 MB: part it.' : null);
    if (taken.length > mostCsv) return;
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
            <Guards list={guards} sure={sure} onSure={(yes) => setSureOf(yes ? question : null)} />
            <SaveSorted
              word={saving ? 'Taking up …' : `Take up ${entriesWord(edits.length)}`}
              runHere={runHere}
              answer={answer}
              disabled={edits.length === 0 || saving || waiting || check.waiting || (guards.length > 0 && !sure)}
            />
          </Form>
        }
        right={
          <div className="flex flex-col gap-5">
            <WhatWasRead
              nothing={text.trim() === ''}
              error={reading.error}
              waiting={waiting}
              read={read}
              takings={takings}
            />
            {edits.length > 0 && <DryRunPanel answer={answer} setup={setup} none="No message here would change." />}
          </div>
        }
      />
    </Page>
  );
}
