import { useDraggable, useDroppable, DndContext, MouseSensor, useSensor, useSensors } from '@dnd-kit/core';
import { ArrowDown, ArrowUp, GripVertical, Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { deepestNest, inTree, putWithin, standsWithin, type Branch } from '../../core/mail/nesting';
import { type Folder } from '../../core/mail/place';
import { inks, type Label } from '../../core/mail/label';
import { ruleName } from '../../core/rules/ruleWords';
import type { Overview } from '../../mailroom/border/overview';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { InkMark } from '../ui/InkTag';
import { Page } from '../ui/Page';
import { count, messages } from '../../core/text/sentences';
import { Form } from '../ui/Form';
import { DissolveDialog, type Dissolved } from './DissolveDialog';

type List = 'labels' | 'folders';
type Item = Label | Folder;

const edit = async (edits: SetupEdit[], says: string) =>
  tellOutcome(await mailroom.editSetup(commandId(), edits, says, false));

/** Labels and folders: made, renamed, nested, put in order, merged and taken off. */
export function LabelsPage() {
  const overview = useMailbox((s) => s.overview);
  const [dissolved, setDissolved] = useState<Dissolved | null>(null);
  if (!overview) return null;
  const { setup } = overview;
  return (
    <Page title="Labels and folders" acts={<UndoSpot />}>
      <div className="grid gap-6 @5xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <Tree
          list="labels"
          title="Labels"
          what="A message can bear any number of labels, and is found under each."
          overview={overview}
          onDissolve={setDissolved}
        />
        <Tree
          list="folders"
          title="Folders"
          what="A message is in exactly one place."
          overview={overview}
          onDissolve={setDissolved}
        />
      </div>
      <Legend setup={setup} />
      {dissolved && <DissolveDialog what={dissolved} overview={overview} onClose={() => setDissolved(null)} />}
    </Page>
  );
}

interface TreeProps {
  list: List;
  title: string;
  what: string;
  overview: Overview;
  onDissolve: (what: Dissolved) => void;
}

function Tree({ list, title, what, overview, onDissolve }: TreeProps) {
  const { setup } = overview;
  const items: readonly Item[] = setup[list];
  const [typed, setTyped] = useState('');
  const sensors = useSensors(useSensor(MouseSensor, { activationConstraint: { distance: 6 } }));
  const one = list === 'labels' ? 'label' : 'folder';
  const nest = (id: string, parent: string | undefined) => {
    const item = items.find((it) => it.id === id);
    if (!item || item.parent === parent || (parent !== undefined && standsWithin(items, parent, id))) return;
    const within = items.find((it) => it.id === parent);
    void edit(
      [{ list, id, item: putWithin<Item>(item, parent) } as SetupEdit],
      within ? `Put the ${one} ${item.name} within ${within.name}` : `Put the ${one} ${item.name} at the top`,
    );
  };
  const make = () => {
    const name = typed.trim();
    if (!name) return;
    const id = commandId();
    const item = list === 'labels' ? { id, name, ink: inks[items.length % inks.length] } : { id, name };
    void edit([{ list, id, item } as SetupEdit], `Made the ${one} ${name}`).then((done) => done && setTyped(''));
  };
  return (
    <section aria-label={title} className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">{title}</h2>
      <p className="quiet text-sm">{what} Drag one onto another to nest it.</p>
      <Form className="flex gap-2" onSubmit={() => make()}>
        <input
          className="input input-sm flex-1"
          aria-label={`Name of a new ${one}`}
          placeholder={`Name of a new ${one}`}
          maxLength={100}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <button className="btn btn-primary btn-sm" disabled={!typed.trim()}>
          <Plus size={16} aria-hidden /> Make
        </button>
      </Form>
      {items.length === 0 ? (
        <p>There are none yet.</p>
      ) : (
        <DndContext
          sensors={sensors}
          onDragEnd={({ active, over }) =>
            over && nest(String(active.id), over.id === 'top' ? undefined : String(over.id).replace(/^on /, ''))
          }
        >
          <ul className="flex flex-col gap-1" aria-label={title}>
            {inTree<Item>(items).map((branch) => (
              <TreeItem
                key={branch.item.id}
                list={list}
                branch={branch}
                overview={overview}
                nest={nest}
                onDissolve={onDissolve}
              />
            ))}
          </ul>
          <Top />
        </DndContext>
      )}
    </section>
  );
}

/** Where what is dragged goes to the top again. */
function Top() {
  const { setNodeRef, isOver, active } = useDroppable({ id: 'top' });
  return (
    <p
      ref={setNodeRef}
      className={`quiet rounded border border-dashed border-base-300 px-2 py-1 text-sm ${isOver ? 'drop-here' : ''} ${active ? '' : 'invisible'}`}
    >
      Drop here to put it at the top
    </p>
  );
}

interface TreeItemProps {
  list: List;
  branch: Branch<Item>;
  overview: Overview;
  nest: (id: string, parent: string | undefined) => void;
  onDissolve: (what: Dissolved) => void;
}

function TreeItem({ list, branch: { item, depth }, overview, nest, onDissolve }: TreeItemProps) {
  const { setup } = overview;
  const items: readonly Item[] = setup[list];
  const one = list === 'labels' ? 'label' : 'folder';
  const { setNodeRef: dragRef, listeners, isDragging } = useDraggable({ id: item.id });
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: `on ${item.id}`, disabled: isDragging });
  const siblings = items.filter(({ parent }) => parent === item.parent);
  const at = siblings.indexOf(item);
  const place = (to: number) =>
    void edit(
      [{ list, id: item.id, item, at: items.indexOf(siblings[to]) } as SetupEdit],
      `Moved the ${one} ${item.name} ${to < at ? 'up' : 'down'}`,
    );
  const total =
    list === 'labels'
      ? overview.labels.find(({ label }) => label === item.id)?.total
      : overview.places.find((p) => p.place === `folder:${item.id}`)?.total;
  return (
    <li
      ref={dropRef}
      style={{ marginLeft: `${depth * 1.25}rem` }}
      className={`flex flex-wrap items-center gap-2 rounded-box border border-base-300 px-2 py-1 ${isOver ? 'drop-here' : ''} ${isDragging ? 'opacity-60' : ''}`}
    >
      <span ref={dragRef} {...listeners} className="cursor-grab" title="Drag onto another to nest it">
        <GripVertical size={14} aria-hidden />
      </span>
      <Name
        name={item.name}
        label={`Name of the ${one} ${item.name}`}
        onName={(name) =>
          void edit(
            [{ list, id: item.id, item: { ...item, name } } as SetupEdit],
            `Renamed the ${one} ${item.name} to ${name}`,
          )
        }
      />
      {'ink' in item && <LabelInk label={item} />}
      <Link className="link quiet text-sm whitespace-nowrap tabular-nums" to={`/${one}/${encodeURIComponent(item.id)}`}>
        {messages(total ?? 0)}
      </Link>
      <span className="ml-auto flex items-center">
        <select
          className="select w-auto max-w-32 select-xs"
          aria-label={`${item.name} stands within`}
          value={item.parent ?? ''}
          onChange={(e) => nest(item.id, e.target.value || undefined)}
        >
          <option value="">at the top</option>
          {inTree<Item>(items)
            .filter((other) => other.depth < deepestNest && !standsWithin(items, other.item.id, item.id))
            .map((other) => (
              <option key={other.item.id} value={other.item.id}>
                within {other.item.name}
              </option>
            ))}
        </select>
        <button
          className="btn btn-square btn-ghost btn-xs"
          disabled={at <= 0}
          onClick={() => place(at - 1)}
          aria-label={`Move ${item.name} up`}
        >
          <ArrowUp size={14} />
        </button>
        <button
          className="btn btn-square btn-ghost btn-xs"
          disabled={at === siblings.length - 1}
          onClick={() => place(at + 1)}
          aria-label={`Move ${item.name} down`}
        >
          <ArrowDown size={14} />
        </button>
        <button
          className="btn btn-ghost btn-xs"
          onClick={() => onDissolve({ list, id: item.id, name: item.name })}
          aria-label={`Take off … ${item.name}`}
        >
          Take off …
        </button>
      </span>
    </li>
  );
}

/** A name that is changed where it stands: Enter or leaving the field keeps it, Escape does not. */
function Name({ name, label, onName }: { name: string; label: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    const next = typed?.trim() ?? '';
    if (next && next !== name) onName(next);
    setTyped(null);
  };
  return (
    <input
      className="input input-ghost input-sm min-w-24 flex-1 px-1"
      aria-label={label}
      maxLength={100}
      value={typed ?? name}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === 'Enter') keep();
        if (e.key === 'Escape') setTyped(null);
      }}
    />
  );
}

function LabelInk({ label }: { label: Label }) {
  return (
    <span className="flex items-center gap-1">
      <InkMark ink={label.ink} />
      <select
        className="select w-24 select-xs"
        aria-label={`Ink of ${label.name}`}
        value={label.ink}
        onChange={(e) => {
          const ink = inks.find((one) => one === e.target.value);
          if (ink)
            void edit(
              [{ list: 'labels', id: label.id, item: { ...label, ink } }],
              `Gave the label ${label.name} the ink ${ink}`,
            );
        }}
      >
        {inks.map((ink) => (
          <option key={ink}>{ink}</option>
        ))}
      </select>
      <label className="flex items-center gap-1 text-xs">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={label.row ?? false}
          aria-label={`${label.name} inks the whole row`}
          onChange={(e) => {
            const row = e.target.checked;
            void edit(
              [{ list: 'labels', id: label.id, item: { ...label, row } }],
              row ? `The label ${label.name} inks rows` : `The label ${label.name} no longer inks rows`,
            );
          }}
        />
        row
      </label>
    </span>
  );
}

/** The legend: what each ink stands for. */
function Legend({ setup }: { setup: Setup }) {
  const used = inks.flatMap((ink) => {
    const by: ReactNode[] = [
      ...setup.labels
        .filter((label) => label.ink === ink)
        .map(({ id, name, row }) => <span key={id}>{row ? `${name} (row)` : name}</span>),
      ...setup.rules
        .filter((rule) => rule.on && rule.then.some((action) => action.do === 'ink' && action.ink === ink))
        .map((rule) => (
          <Link key={rule.id} className="link" to={`/rules/${encodeURIComponent(rule.id)}`}>
            {ruleName(rule, setup)}
          </Link>
        )),
    ];
    return by.length ? [{ ink, by }] : [];
  });
  return (
    <section aria-label="Inks" className="mt-8 max-w-3xl">
      <h2 className="text-lg font-semibold">Inks</h2>
      <p className="quiet text-sm">
        Ten inks, each with its tag. A label has one; a rule can ink a row.
        {used.length < inks.length && ` ${count(inks.length - used.length)} of them mean nothing yet.`}
      </p>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {used.map(({ ink, by }) => (
          <div key={ink} className="contents">
            <dt className="flex items-center gap-2">
              <InkMark ink={ink} /> {ink}
            </dt>
            <dd className="flex flex-wrap gap-x-3">{by}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
