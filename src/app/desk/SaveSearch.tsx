import { BookmarkCheck, BookmarkPlus } from 'lucide-react';
import { useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { parseQuery } from '../../core/search/query';
import type { SavedSearch } from '../../core/search/saved';
import { mailroom } from '../../mailroom/client';
import type { View } from '../../mailroom/border/views';
import { commandId, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { Form } from '../ui/Form';
import { savedSearchOf, viewName } from '../ui/naming';

type Found = Extract<View, { kind: 'found' }>;

function SearchDialog({ view, setup, onClose }: { view: Found; setup: Setup; onClose: () => void }) {
  const saved = savedSearchOf(view, setup);
  const [typed, setTyped] = useState(saved?.name ?? '');
  const name = typed.trim();
  const other = setup.searches.find((one) => one.id !== saved?.id && one.name.toLowerCase() === name.toLowerCase());
  const edit = async (id: string, item: SavedSearch | null, says: string) => {
    const edits = [{ list: 'searches' as const, id, item }];
    if (tellOutcome(await mailroom.editSetup(commandId(), edits, says, false))) onClose();
  };
  const save = () => {
    const id = other?.id ?? saved?.id ?? commandId();
    const { query, within } = view;
    void edit(id, { id, name: other?.name ?? name, query, within }, `Saved the search ${name}`);
  };
  const lanes = saved ? setup.lanes.filter(({ what }) => what.by === 'search' && what.search === saved.id).length : 0;
  return (
    <Dialog title={saved ? 'Saved search' : 'Save this search'} onClose={onClose}>
      <Form
        className="flex flex-col gap-3"
        onSubmit={() => {
          if (name !== '') save();
        }}
      >
        <p className="font-mono text-sm [overflow-wrap:anywhere]">{view.query}</p>
        <p className="quiet text-sm">
          {view.within ? `In ${viewName(view.within, setup)}.` : 'In all places and folders.'} It stands on the left
          with its count, and can be a lane.
        </p>
        <label className="flex flex-col text-sm">
          Name
          <input
            className="input w-full"
            autoFocus
            autoComplete="off"
            maxLength={100}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        {other && <p className="text-sm">There is a search of that name: it will ask for this from now on.</p>}
        {lanes > 0 && (
          <p className="quiet text-sm">
            {lanes === 1 ? 'A lane goes' : `${lanes} lanes go`} by it. Taken off,{' '}
            {lanes === 1 ? 'it holds' : 'they hold'} nothing.
          </p>
        )}
        <div className="flex gap-2">
          <button className="btn btn-primary btn-sm" disabled={name === ''}>
            {other ? 'Replace it' : 'Save'}
          </button>
          {saved && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => void edit(saved.id, null, `Took the search ${saved.name} off`)}
            >
              Take off
            </button>
          )}
          <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
            Leave it
          </button>
        </div>
      </Form>
    </Dialog>
  );
}

/** Keeps a search by a name, or changes the name under which it is kept. */
export function SaveSearch({ view, setup }: { view: Found; setup: Setup }) {
  const [open, setOpen] = useState(false);
  const saved = savedSearchOf(view, setup);
  if (!parseQuery(view.query).ok) return null;
  return (
    <>
      <button
        type="button"
        className="btn gap-1 btn-ghost btn-sm"
        onClick={() => setOpen(true)}
        title={saved ? 'Name it anew or take it off' : 'Keep this search on the left'}
      >
        {saved ? <BookmarkCheck size={15} aria-hidden /> : <BookmarkPlus size={15} aria-hidden />}
        {saved ? 'Saved' : 'Save search'}
      </button>
      {open && <SearchDialog view={view} setup={setup} onClose={() => setOpen(false)} />}
    </>
  );
}
