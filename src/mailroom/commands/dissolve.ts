// Dissolving a label, folder or tray into another: no message is lost, and what spoke of it speaks of the other.
import { filled, numbersWhere } from '../../core/data/rows';
import { placedNow } from '../state/retention';
import { type Place, placeName } from '../../core/mail/place';
import { type Label } from '../../core/mail/label';
import { putWithin } from '../../core/mail/nesting';
import type { Setup } from '../../core/line/setup';
import { endsStation, type Rule } from '../../core/rules/rule';
import { type Action } from '../../core/effects/effects';
import { isUnchosen, unchosen, type Stamp } from '../../core/stamps/stamp';
import type { Receipt } from '../border/outcome';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { Dissolving } from '../border/rules';
import { bit } from '../state/columns';
import { doneBefore } from './once';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { expunged } from '../state/internedTables';
import { messages } from '../../core/text/sentences';

/** A rule's actions once something is dissolved: `of` says what becomes of one; null takes it off. */
function redirected(rules: readonly Rule[], of: (action: Action) => Action | null): SetupEdit[] {
  return rules.flatMap((rule): SetupEdit[] => {
    const then = rule.then.flatMap((action) => of(action) ?? []);
    if (then.length === rule.then.length && then.every((action, i) => action === rule.then[i])) return [];
    // The same label twice is once.
    const distinct = then.filter(
      (one, i) => then.findIndex((other) => JSON.stringify(other) === JSON.stringify(one)) === i,
    );
    // Without anything left to do it is no rule, but it still keeps those below it from being asked.
    const item = distinct.length
      ? { ...rule, then: distinct }
      : endsStation(rule)
        ? { ...rule, then: [{ do: 'stop' as const }] }
        : null;
    return [{ list: 'rules', id: rule.id, item }];
  });
}

/** What speaks of something else in its place once it is dissolved. */
interface Instead {
  /** What becomes of a rule's action; null takes it off. */
  ofRule: (action: Action) => Action | null;
  /** What becomes of a stamp's act: what it speaks of may be chosen anew. */
  ofStamp: (act: Action) => Action;
}

/**
 * Rules and stamps once something is dissolved. A stamp of which something has to be chosen anew no rule can run: such a rule
 * does by itself what is left of it.
 */
function spokenOf({ rules, stamps }: Setup, { ofRule, ofStamp }: Instead): SetupEdit[] {
  const changed = new Map(
    stamps.flatMap((stamp): [string, Stamp][] => {
      const acts = stamp.acts.map(ofStamp);
      return acts.every((act, i) => act === stamp.acts[i]) ? [] : [[stamp.id, { ...stamp, acts }]];
    }),
  );
  const broken = [...changed.values()].filter(({ acts }) => acts.some(isUnchosen)).map(({ id }) => id);
  const inlined = rules.map((rule) => {
    if (!rule.then.some((action) => action.do === 'stamp' && broken.includes(action.stamp))) return rule;
    const left = (id: string) => stamps.find((one) => one.id === id)?.acts ?? [];
    return {
      ...rule,
      then: rule.then.flatMap((action) =>
        action.do === 'stamp' && broken.includes(action.stamp) ? left(action.stamp) : [action],
      ),
    };
  });
  const redone = redirected(inlined, ofRule);
  const again = new Set(redone.map(({ id }) => id));
  return [
    ...redone,
    ...inlined.flatMap((rule, i): SetupEdit[] =>
      rule === rules[i] || again.has(rule.id) ? [] : [{ list: 'rules', id: rule.id, item: rule }],
    ),
    ...[...changed.values()].map((item): SetupEdit => ({ list: 'stamps', id: item.id, item })),
  ];
}

/** What stood within the one that goes stands within its parent. */
function lifted(setup: Setup, list: 'labels' | 'folders', id: string): SetupEdit[] {
  const items: readonly Label[] | Setup['folders'] = setup[list];
  const parent = items.find((item) => item.id === id)?.parent;
  return items
    .filter((item) => item.parent === id)
    .map((item) => ({ list, id: item.id, item: putWithin(item, parent) }) as SetupEdit);
}

/** Trays, and what is let through, that gather by a label: they go by the other. */
function gatheredWithout({ trays, delivery }: Setup, id: string, into: string | null): SetupEdit[] {
  const others = (labels: readonly string[]) => [
    ...new Set(labels.flatMap((label) => (label !== id ? label : (into ?? [])))),
  ];
  const { letThrough } = delivery;
  return [
    ...trays
      .filter(({ labels }) => labels.includes(id))
      .map((tray): SetupEdit => ({ list: 'trays', id: tray.id, item: { ...tray, labels: others(tray.labels) } })),
    ...(letThrough.labels.includes(id)
      ? [
          {
            list: 'delivery' as const,
            id: 'delivery' as const,
            item: { ...delivery, letThrough: { ...letThrough, labels: others(letThrough.labels) } },
          },
        ]
      : []),
  ];
}

function dissolveLabel(
  { columns, tables, setup }: Pick<MailState, 'columns' | 'tables' | 'setup'>,
  id: string,
  into: string | null,
) {
  const name = (label: string) => setup.labels.find((one) => one.id === label)?.name ?? label;
  const bears = tables.labelSets.items.map((set) => set.includes(id));
  const ids = numbersWhere(columns.count, (i) => bears[columns.labels[i]] && columns.place[i] !== expunged);
  const labels = filled(Uint16Array, ids, (i) => {
    const rest = tables.labelSets.items[columns.labels[i]].filter((one) => one !== id && one !== into);
    return tables.labelSetIndex(into === null ? rest : [...rest, into]);
  });
  const edits: SetupEdit[] = [
    ...spokenOf(setup, {
      ofRule: (action) =>
        (action.do !== 'label' && action.do !== 'unlabel') || action.label !== id
          ? action
          : into === null
            ? null
            : { ...action, label: into },
      ofStamp: (act) =>
        (act.do === 'label' || act.do === 'unlabel') && act.label === id ? { ...act, label: into ?? unchosen } : act,
    }),
    ...setup.lanes.flatMap((lane): SetupEdit[] => {
      if (lane.what.by !== 'label' || lane.what.label !== id) return [];
      const item = into === null ? null : { ...lane, what: { ...lane.what, label: into } };
      return [{ list: 'lanes', id: lane.id, item }];
    }),
    ...setup.told.flatMap((told): SetupEdit[] =>
      told.by === 'label' && told.value === id
        ? [{ list: 'told', id: told.id, item: into === null ? null : { ...told, value: into } }]
        : [],
    ),
    ...gatheredWithout(setup, id, into),
    ...lifted(setup, 'labels', id),
    { list: 'labels', id, item: null },
  ];
  const says = into === null ? `Took the label ${name(id)} off` : `Merged the label ${name(id)} into ${name(into)}`;
  return { ids, after: { labels } satisfies Columns, edits, says };
}

function dissolveFolder(mailbox: MailState, id: string, into: Place) {
  const { columns, tables, setup } = mailbox;
  const from = tables.placeIndex(`folder:${id}`);
  const ids = numbersWhere(columns.count, (i) => columns.place[i] === from);
  const after: Columns = {
    place: tables.placeIndex(into),
    placedAt: placedNow(mailbox),
    bits: filled(Uint8Array, ids, (i) => columns.bits[i] | bit.byHand),
  };
  const elsewhere = (act: Action): Action =>
    act.do === 'move' && act.place === `folder:${id}` ? { ...act, place: into } : act;
  const edits: SetupEdit[] = [
    ...spokenOf(setup, { ofRule: elsewhere, ofStamp: elsewhere }),
    ...lifted(setup, 'folders', id),
    { list: 'folders', id, item: null },
  ];
  const name = placeName(`folder:${id}`, setup.folders);
  return { ids, after, edits, says: `Took the folder ${name} off, its mail to ${placeName(into, setup.folders)}` };
}

/** What waited in it waits in the other for its round, or is delivered at once; what it delivered stands there, or by itself. */
function dissolveTray(mailbox: MailState, id: string, into: string | null) {
  const { columns, tables, setup } = mailbox;
  const [from, to] = [tables.trayIndex(id), tables.trayIndex(into)];
  const held = tables.placeIndex('held');
  const ids = numbersWhere(columns.count, (i) => columns.tray[i] === from && columns.place[i] !== expunged);
  const comes = (i: number) => into === null && columns.place[i] === held && columns.until[i] === 0;
  const now = placedNow(mailbox);
  const after: Columns = {
    tray: to,
    place: filled(Uint16Array, ids, (i) => (comes(i) ? tables.placeIndex('inbox') : columns.place[i])),
    placedAt: filled(Float64Array, ids, (i) => (comes(i) ? now : columns.placedAt[i])),
    delivered: filled(Float64Array, ids, (i) => (comes(i) ? mailbox.now() : columns.delivered[i])),
  };
  const name = (tray: string) => setup.trays.find((one) => one.id === tray)?.name ?? tray;
  const edits: SetupEdit[] = [
    ...spokenOf(setup, {
      ofRule: (action) => {
        if (action.do !== 'tray' || action.tray !== id) return action;
        return into === null ? null : { ...action, tray: into };
      },
      ofStamp: (act) => (act.do === 'tray' && act.tray === id ? { ...act, tray: into ?? unchosen } : act),
    }),
    { list: 'trays', id, item: null },
  ];
  const says = `Dissolved the tray ${name(id)}, its mail to ${into === null ? 'the Inbox' : name(into)}`;
  return { ids, after, edits, says };
}

/** Dissolves a label, folder or tray, with all that spoke of it: one command, undone as one. */
export async function dissolve(
  mailbox: MailState & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing,
  command: string,
  what: Dissolving,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const { ids, after, edits, says } =
    what.of === 'label'
      ? dissolveLabel(mailbox, what.id, what.into)
      : what.of === 'tray'
        ? dissolveTray(mailbox, what.id, what.into)
        : dissolveFolder(mailbox, what.id, what.into);
  const words = ids.length ? `${says} (${messages(ids.length)})` : says;
  const change = ids.length ? { ids, after } : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: edits, ...change });
  return { seq, count: ids.length, says: words };
}
