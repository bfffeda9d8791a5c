import { useState } from 'react';
import { mailroom } from '../../mailroom/client';
import { commandId, say, tellOutcome } from '../state/desk';
import type { SetupRead } from '../../mailroom/border/outcome';
import {
  deskSettings,
  readDeskSettings,
  deskSettingWords,
  withDeskSettings,
  type DeskRead,
} from '../settings/deskFile';
import { prefer, usePreferences } from '../state/preferences';
import { Dialog } from '../ui/Dialog';
import { SetupDifference } from './SetupDifference';
import { saveFile } from '../ui/save';

/** Larger than this no setup is. In bytes. */
const mostSetup = 50_000_000;

interface Picked {
  name: string;
  document: string;
  read: Extract<SetupRead, { ok: true }>;
  desk: DeskRead;
}

/** The whole setup as one file, out and in. */
export function SetupSection() {
  const [picked, setPicked] = useState<Picked | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const save = async () => {
    const document = withDeskSettings(await mailroom.exportSetup(), usePreferences.getState());
    saveFile(new Blob([document], { type: 'application/json' }), 'wide-sort-setup.json');
    say({ text: 'Saved the setup to wide-sort-setup.json.', tone: 'done' });
  };
  const pick = async (file: File | undefined) => {
    setTrouble(null);
    if (!file) return;
    if (file.size > mostSetup) return setTrouble(`${file.name} is too large for a setup.`);
    const document = await file.text();
    const read = await mailroom.readSetup(document);
    if (!read.ok) return setTrouble(`${file.name}: ${read.error} Nothing was changed.`);
    setPicked({ name: file.name, document, read, desk: readDeskSettings(document, usePreferences.getState()) });
  };
  const takeUp = async () => {
    if (!picked) return;
    setPicked(null);
    const outcome = await mailroom.importSetup(commandId(), picked.document);
    if (!outcome.ok) return setTrouble(`${picked.name}: ${outcome.error}`);
    const { seq } = outcome.receipt;
    const before = deskSettings(usePreferences.getState());
    if (picked.desk.changed.length && seq !== null)
      prefer({ ...picked.desk.changes, replaced: { seq, settings: before } });
    tellOutcome(outcome);
  };
  return (
    <section aria-labelledby="setup" className="flex flex-col items-start gap-3">
      <h2 id="setup" className="text-lg font-semibold">
        The setup
      </h2>
      <p>
        Register, rules, folders, labels, contacts, lanes, what the junk filter has learned and how the desk is set, as
        one file: to keep it, or to go on elsewhere.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <button className="btn btn-outline btn-sm" onClick={() => void save()}>
          Save the setup
        </button>
        <label className="flex flex-wrap items-center gap-2">
          <span className="whitespace-nowrap">Take up a setup</span>
          <input
            type="file"
            accept=".json,application/json"
            className="file-input file-input-sm"
            onChange={(e) => {
              void pick(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      {trouble && (
        <p role="alert" className="border-l-4 border-error bg-base-200 px-3 py-2 [overflow-wrap:anywhere]">
          {trouble}
        </p>
      )}
      {picked && (
        <Dialog title={`Take up ${picked.name}?`} onClose={() => setPicked(null)} wide>
          <p className="mb-3">
            It takes the place of all that was decided here. Messages stay where they are; Undo brings the setup of
            today back.
          </p>
          <SetupDifference
            difference={picked.read.difference}
            kept={picked.read.kept}
            desk={picked.desk.changed.map((setting) => deskSettingWords[setting])}
          />
          {picked.desk.refused.length > 0 && (
            <p className="mt-3 border-l-4 border-warning bg-base-200 px-3 py-2 [overflow-wrap:anywhere]">
              Of the desk’s settings these can’t be read, and stay as they are here:{' '}
              {picked.desk.refused.slice(0, 20).join(', ')}
            </p>
          )}
          <div className="mt-4 flex justify-end gap-2">
            <button className="btn btn-sm" onClick={() => setPicked(null)}>
              Keep what is here
            </button>
            <button className="btn btn-primary btn-sm" onClick={() => void takeUp()}>
              Take it up
            </button>
          </div>
        </Dialog>
      )}
    </section>
  );
}
