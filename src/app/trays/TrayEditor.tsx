import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Condition } from '../../core/rules/rule';
import type { Setup } from '../../core/line/setup';
import type { SetupEdit } from '../../core/line/setupEdit';
import { roundWords } from '../../core/delivery/rounds';
import { sameRound, traySchema, type Tray } from '../../core/delivery/tray';
import { mailroom } from '../../mailroom/client';
import { DeliveryDryRun } from '../delivery/DeliveryDryRun';
import { GatheringFields, readGathering } from '../delivery/GatheringFields';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Form } from '../ui/Form';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useLeave } from '../ui/useLeave';
import { RoundFields } from './RoundFields';

/** A tray, new or there already: left what it gathers and when it is delivered, right what it would have done. */
export function TrayEditor() {
  const { tray: id } = useParams();
  const [search] = useSearchParams();
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  const old = setup.trays.find((tray) => tray.id === id) ?? null;
  if (id && !old)
    return (
      <Page title="Tray">
        <p>This tray is not there any more.</p>
      </Page>
    );
  return <Editor key={id ?? `new ${search.toString()}`} old={old} setup={setup} first={firstOf(search)} />;
}

type Read = { ok: true; tray: Tray } | { ok: false; error: string };

/** The tray of a draft, or what it still lacks, in a sentence. */
function readTray(draft: Tray): Read {
  const read = traySchema.safeParse(readGathering({ ...draft, name: draft.name.trim() }));
  if (!draft.name.trim()) return { ok: false, error: 'Give the tray a name.' };
  if (!read.success) return { ok: false, error: `The round ${read.error.issues[0].message}.` };
  return { ok: true, tray: read.data };
}

/** What a new tray begins with: what the address says of a sender, domain or list, or a condition still to be written. */
function firstOf(search: URLSearchParams): Condition {
  const text = search.get('of') ?? '';
  if (search.get('by') === 'list') return { field: 'list', how: 'is', text };
  return { field: 'from', how: search.get('by') === 'address' ? 'is' : 'domain', text };
}

interface EditorProps {
  old: Tray | null;
  setup: Setup;
  /** What a new one gathers first. */
  first: Condition;
}

function Editor({ old, setup, first }: EditorProps) {
  const leaveTo = useLeave();
  const revision = useMailbox((s) => s.revision);
  const waits = useMailbox((s) => s.overview?.trays.find((one) => one.tray === old?.id)?.waits ?? 0);
  const [draft, setDraft] = useState<Tray>(
    () =>
      old ?? {
        id: commandId(),
        name: '',
        when: { match: 'any', of: [first] },
        labels: [],
        round: { by: 'hours', days: ['MO'], times: ['07:00'] },
        since: 0,
      },
  );
  const [saving, setSaving] = useState(false);
  const set = (part: Partial<Tray>) => setDraft((one) => ({ ...one, ...part }));
  const read = readTray(draft);
  const edits: SetupEdit[] = read.ok ? [{ list: 'trays', id: read.tray.id, item: read.tray }] : [];
  const answer = useAnswer(
    () =>
      read.ok
        ? mailroom.deliveryDryRun(edits, { in: 'tray', tray: read.tray.id }, draft.id)
        : Promise.resolve({ ok: false as const, error: read.error }),
    `${JSON.stringify(edits)} ${revision} ${read.ok ? '' : read.error}`,
    150,
  );
  const save = async () => {
    if (!read.ok) return;
    setSaving(true);
    const { tray } = read;
    const says = `${old ? 'Changed' : 'Made'} the tray “${tray.name}”`;
    const outcome = await mailroom.editSetup(commandId(), [{ list: 'trays', id: tray.id, item: tray }], says, false);
    setSaving(false);
    if (tellOutcome(outcome)) leaveTo('/trays');
  };
  return (
    <Page title={old ? old.name : 'New tray'}>
      <Halves
        left={
          <Form className="flex flex-col gap-5" onSubmit={() => void save()}>
            <div>
              <label htmlFor="tray-name" className="mb-1 block font-semibold">
                Name
              </label>
              <input
                id="tray-name"
                className="input w-full input-sm"
                maxLength={100}
                value={draft.name}
                onChange={(event) => set({ name: event.target.value })}
              />
            </div>
            <GatheringFields word="Gathers" gathering={draft} setup={setup} onChange={set} />
            <RoundFields round={draft.round} onChange={(round) => set({ round })} />
            {read.ok && (
              <p className="border-l-4 border-primary bg-base-200 px-3 py-2 text-sm">
                What it gathers waits, and comes to the Inbox as one row: {roundWords(read.tray.round)}.
                {old && waits > 0 && !sameRound(read.tray, old) && ` The ${waits} that wait now go by the new round.`}
              </p>
            )}
            <div className="flex gap-2">
              <button className="btn btn-primary" disabled={!read.ok || saving}>
                Save the tray
              </button>
              <button type="button" className="btn btn-ghost" onClick={() => leaveTo('/trays')}>
                Cancel
              </button>
            </div>
            <p className="quiet text-sm">It counts for mail to come. What is in the Inbox is put in it from there.</p>
          </Form>
        }
        right={<DeliveryDryRun answer={answer} where="in this tray" />}
      />
    </Page>
  );
}
