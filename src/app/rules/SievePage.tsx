import { Copy, Download, FileUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { setupScript } from '../../core/line/setupScript';
import { readScript, type ReadScript, type Remark } from '../../core/rules/sieve/read';
import { ruleSentence } from '../../core/rules/ruleWords';
import { scriptEdits } from '../../core/line/scriptEdits';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, say, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Choice } from '../ui/fields';
import { Halves, Page } from '../ui/Page';
import { saveFile } from '../ui/save';
import { useLeave } from '../ui/useLeave';

/** The rules as a Sieve script for a mail server, and scripts taken up as rules. */
export function SievePage() {
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  return (
    <Page title="Rules as a Sieve script" acts={<UndoSpot />}>
      <Halves left={<Out setup={setup} />} right={<In setup={setup} />} />
    </Page>
  );
}

const area = 'textarea h-72 w-full font-mono text-xs whitespace-pre';

function Out({ setup }: { setup: Setup }) {
  const { script, unsaid } = useMemo(() => setupScript(setup), [setup]);
  return (
    <section aria-label="Out" className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">Out</h2>
      <p className="text-sm">
        A mail server that knows Sieve (RFC 5228) can run these rules itself, before the mail comes here.
      </p>
      <textarea className={area} readOnly aria-label="The script" value={script} />
      <div className="flex gap-2">
        <button
          className="btn btn-primary btn-sm"
          onClick={() => saveFile(new Blob([script], { type: 'application/sieve' }), 'wide-sort.sieve')}
        >
          <Download size={16} aria-hidden /> Save the script
        </button>
        <button
          className="btn btn-ghost btn-sm"
          onClick={() =>
            void navigator.clipboard.writeText(script).then(
              () => say({ text: 'Copied the script.', tone: 'done' }),
              () => say({ text: 'The browser did not let it be copied: select the text.', tone: 'trouble' }),
            )
          }
        >
          <Copy size={16} aria-hidden /> Copy
        </button>
      </div>
      {unsaid.length > 0 && (
        <div className="border-l-4 border-accent bg-base-200 px-3 py-2 text-sm">
          <h3 className="font-semibold">What Sieve can’t say</h3>
          <ul>
            {unsaid.map(({ rule, says }, i) => (
              <li key={i}>
                {rule}: {says}.
              </li>
            ))}
          </ul>
          <p>It stands in comments, so that it is there again when the script comes back.</p>
        </div>
      )}
    </section>
  );
}

function Remarks({ title, list }: { title: string; list: readonly Remark[] }) {
  if (list.length === 0) return null;
  return (
    <div className="border-l-4 border-accent bg-base-200 px-3 py-2 text-sm">
      <h3 className="font-semibold">{title}</h3>
      <ul>
        {list.slice(0, 200).map(({ at, says }, i) => (
          <li key={i}>
            Line {at.line}: {says}
          </li>
        ))}
      </ul>
      {list.length > 200 && <p>and {list.length - 200} more.</p>}
    </div>
  );
}

function PickFile({ onText }: { onText: (text: string) => void }) {
  return (
    <label className="btn btn-outline btn-sm">
      <FileUp size={16} aria-hidden /> A script from a file
      <input
        type="file"
        className="sr-only"
        accept=".sieve,.siv,.txt"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void file.text().then(onText);
        }}
      />
    </label>
  );
}

/** The rules that would be taken, and what comes with them. */
function Coming({ read, names }: { read: ReadScript; names: Setup }) {
  return (
    <>
      <h3 className="font-semibold">
        {read.rules.length === 1 ? 'One rule' : `${read.rules.length} rules`} would come
        {read.folders.length > 0 &&
          `, with ${read.folders.length} new ${read.folders.length === 1 ? 'folder' : 'folders'}`}
        {read.labels.length > 0 && `, with ${read.labels.length} new ${read.labels.length === 1 ? 'label' : 'labels'}`}
      </h3>
      <ol className="flex list-decimal flex-col gap-1 pl-6 text-sm">
        {read.rules.slice(0, 50).map((rule) => (
          <li key={rule.id}>
            {rule.name && <strong>{rule.name}: </strong>}
            {ruleSentence(rule, names)}
          </li>
        ))}
      </ol>
      {read.rules.length > 50 && <p className="quiet text-sm">and {read.rules.length - 50} more.</p>}
    </>
  );
}

function In({ setup }: { setup: Setup }) {
  const leave = useLeave();
  const [text, setText] = useState('');
  const [how, setHow] = useState<'instead' | 'below'>('instead');
  const [saving, setSaving] = useState(false);
  const result = useMemo(() => (text.trim() ? readScript(text, setup, commandId) : null), [text, setup]);
  const read = result?.ok ? result.read : null;
  const names = read && {
    ...setup,
    folders: [...setup.folders, ...read.folders],
    labels: [...setup.labels, ...read.labels],
  };
  const take = async () => {
    if (!read) return;
    setSaving(true);
    const says = `Took up ${read.rules.length} ${read.rules.length === 1 ? 'rule' : 'rules'} from a Sieve script`;
    const outcome = await mailroom.editSetup(
      commandId(),
      scriptEdits(read, setup, how === 'instead', commandId),
      says,
      false,
    );
    setSaving(false);
    if (tellOutcome(outcome)) leave('/rules');
  };
  return (
    <section aria-label="In" className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">In</h2>
      <div className="flex flex-wrap items-center gap-3">
        <PickFile onText={setText} />
        <span className="quiet text-sm">or pasted here:</span>
      </div>
      <textarea
        className={area}
        aria-label="A script to take up"
        spellCheck={false}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {!result && (
        <p className="quiet text-sm">
          What would come of it shows here, line by line, before anything is taken. Scripts that Wide Sort did not write
          are read too.
        </p>
      )}
      {result && !result.ok && (
        <p role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2">
          Line {result.error.at.line}, column {result.error.at.column}: {result.error.says} Nothing was taken.
        </p>
      )}
      {read && names && (
        <>
          <Remarks title="What can’t be taken" list={read.left} />
          <Remarks title="What means something else here" list={read.notes} />
          {read.rules.length === 0 ? (
            <p>There is no rule in this script that can be taken.</p>
          ) : (
            <>
              <Coming read={read} names={names} />
              {setup.rules.length > 0 && (
                <Choice
                  legend="The rules that are here"
                  value={how}
                  options={[
                    ['instead', 'give way to these'],
                    ['below', 'stay, and these come below them'],
                  ]}
                  onChange={setHow}
                />
              )}
              <button className="btn self-start btn-primary" disabled={saving} onClick={() => void take()}>
                Take up {read.rules.length === 1 ? 'this rule' : `these ${read.rules.length} rules`}
              </button>
            </>
          )}
        </>
      )}
    </section>
  );
}
