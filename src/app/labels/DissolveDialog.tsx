import { useState } from 'react';
import { placeName, type Place } from '../../core/mail/place';
import type { Overview } from '../../mailroom/border/overview';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { labelName, movablePlaces, placePath } from '../ui/naming';
import { messages } from '../../core/text/sentences';

export interface Dissolved {
  list: 'labels' | 'folders';
  id: string;
  name: string;
}

/** What becomes of a label’s or folder’s mail when it goes? */
export function DissolveDialog({
  what,
  overview,
  onClose,
}: {
  what: Dissolved;
  overview: Overview;
  onClose: () => void;
}) {
  const { setup } = overview;
  const { list, id, name } = what;
  const own: Place = `folder:${id}`;
  const [into, setInto] = useState<string>(list === 'labels' ? '' : 'archive');
  const [busy, setBusy] = useState(false);
  const total =
    (list === 'labels'
      ? overview.labels.find(({ label }) => label === id)?.total
      : overview.places.find(({ place }) => place === own)?.total) ?? 0;
  const rules = setup.rules.filter(({ then }) =>
    then.some((action) =>
      list === 'labels' ? action.do === 'label' && action.label === id : action.do === 'move' && action.place === own,
    ),
  );
  const onlyThis = rules.filter(({ then }) => then.length === 1).length;
  const go = async () => {
    setBusy(true);
    const outcome = await mailroom.dissolve(
      commandId(),
      list === 'labels' ? { of: 'label', id, into: into || null } : { of: 'folder', id, into: into as Place },
    );
    setBusy(false);
    if (tellOutcome(outcome)) onClose();
  };
  return (
    <Dialog title={list === 'labels' ? `The label ${name}` : `The folder ${name}`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p>
          {list === 'labels'
            ? `${messages(total)} ${total === 1 ? 'bears' : 'bear'} it.`
            : `${messages(total)} ${total === 1 ? 'is' : 'are'} in it.`}{' '}
          No message is deleted.
        </p>
        <label className="flex flex-col gap-1">
          {list === 'labels' ? 'Instead they get' : 'They go to'}
          <select className="select w-full" value={into} onChange={(e) => setInto(e.target.value)}>
            {list === 'labels' && <option value="">no label</option>}
            {list === 'labels'
              ? setup.labels
                  .filter((label) => label.id !== id)
                  .map((label) => (
                    <option key={label.id} value={label.id}>
                      {labelName(label.id, setup)}
                    </option>
                  ))
              : movablePlaces(setup)
                  .filter((place) => place !== own)
                  .map((place) => (
                    <option key={place} value={place}>
                      {placePath(place, setup)}
                    </option>
                  ))}
          </select>
        </label>
        {rules.length > 0 && (
          <p className="border-l-4 border-accent bg-base-200 px-3 py-1 text-sm">
            {rules.length === 1 ? 'One rule speaks of it' : `${rules.length} rules speak of it`}
            {list === 'folders'
              ? `, and will move to ${placeName(into as Place, setup.folders)}.`
              : into
                ? ', and will give the other label.'
                : onlyThis > 0
                  ? `; ${onlyThis === 1 ? 'one does nothing else and goes' : `${onlyThis} do nothing else and go`} with it.`
                  : ', and will no longer give it.'}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button className="btn btn-ghost" onClick={onClose}>
            Cancel
          </button>
          <button className="btn btn-primary" disabled={busy} onClick={() => void go()}>
            {list === 'labels' && into
              ? `Merge into ${setup.labels.find((l) => l.id === into)?.name ?? ''}`
              : `Take ${name} off`}
          </button>
        </div>
      </div>
    </Dialog>
  );
}
