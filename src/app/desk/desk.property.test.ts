// The desk against a simple model of it: whatever a person does in whatever order, an act goes to exactly what the screen
// said, what is counted is what is there, and Undo takes back what was done here last. More by DESKS=2000.
import '../testing/browserStorage';
import { chance, type Random } from '../../../bench/chance';
import { emptySetup } from '../../core/line/setup';
import type { Mailroom } from '../../mailroom/border/mailroom';
import type { Row } from '../../mailroom/border/rows';
import type { Act, Grouping, Order, View } from '../../mailroom/border/views';
import { memoryStore, type RecordStore } from '../../mailroom/storage/recordStore';
import { starter } from '../../mailroom/testing/serviceTesting';
import { testPost } from '../../mailroom/testing/testPost';
import {
  clearTicks,
  runAct,
  tick,
  tickOnly,
  tickRange,
  ticksUnderWay,
  undoLast,
  undoSettled,
  untickGone,
  useDesk,
} from '../state/desk';
import { rowKey } from '../state/ticks';
import { accounts, DeskModel, type Shown } from '../testing/deskModel';
import { forgetAllDone } from '../state/undoing';
import { reachOf, rowTarget, target } from './deskActs';

const mockRoom: { service: Mailroom | null } = { service: null };
jest.mock('../../mailroom/client', () => ({
  onMailroom: () => () => undefined,
  mailroom: new Proxy(
    {},
    {
      get:
        (_, method: keyof Mailroom) =>
        (...args: unknown[]) =>
          (mockRoom.service?.[method] as (...args: unknown[]) => unknown)(...args),
    },
  ),
}));

jest.mock('../state/preferences', () => ({
  prefer: () => undefined,
  restorePreferences: () => undefined,
  usePreferences: { getState: () => ({ offers: false, offered: [] }) },
}));

const orders: Order[] = (['date', 'sender'] as const).flatMap((by) => [false, true].map((turned) => ({ by, turned })));

const sequences = Number(process.env.DESKS ?? 40);
const steps = 25;
const start = starter(() => emptySetup);

const sorted = (ids: Iterable<number>) => [...ids].sort((a, b) => a - b);
const plain = (ticks: ReadonlyMap<number, readonly number[]>) =>
  [...ticks].map(([key, ids]) => [key, sorted(ids)] as const).sort(([a], [b]) => a - b);

const actsTried: Act[] = [
  { do: 'move', place: 'archive' },
  { do: 'move', place: 'bin' },
  { do: 'move', place: 'inbox' },
  { do: 'read', value: true },
  { do: 'read', value: false },
  { do: 'flag', value: true },
  { do: 'flag', value: false },
];

/** A person at the desk, and the model beside them. */
class Person {
  readonly model = new DeskModel();
  private shown: Shown = {
    place: 'inbox',
    filter: null,
    fitted: new Set(),
    account: null,
    grouped: false,
    order: orders[0],
    name: '0',
  };
  private open: number | null = null;
  private count = 0;
  /** What was done, for whoever wants to see where it went wrong. */
  readonly log: string[] = [];

  private constructor(
    private service: Mailroom,
    private readonly store: RecordStore,
    private readonly random: Random,
  ) {}

  static async at(seed: number): Promise<Person> {
    const store = memoryStore();
    const { service } = await start(testPost({}), store);
    mockRoom.service = service;
    clearTicks();
    forgetAllDone();
    const person = new Person(service, store, chance(seed));
    await service.begin('own');
    const edits = accounts.map((id) => ({
      list: 'accounts' as const,
      id,
      item: { id, name: id, address: `${id}@me.test` },
    }));
    await service.editSetup('accounts', edits, 'Set up', false);
    await person.arrive(12);
    return person;
  }

  private get view(): View {
    const { place, filter, account, name } = this.shown;
    return {
      kind: 'place',
      place: place as 'inbox',
      ...(filter ? { filter: { by: filter, applied: name } } : {}),
      ...(account === null ? {} : { account }),
    };
  }

  private get grouping(): Grouping {
    return { grouped: this.shown.grouped, elsewhere: false, order: this.shown.order };
  }

  private rows = async (): Promise<Row[]> => (await this.service.rows(this.view, this.grouping, 0, 1_000)).rows;

  private async arrive(n: number): Promise<void> {
    const files = Array.from({ length: n }, () => new File([this.model.write(this.random)], `${this.count}.eml`));
    const report = await this.service.importFiles(`job${this.count++}`, files, 'line');
    expect(report).toMatchObject({ added: n, error: null });
  }

  /** Shows something else: ticks are of what was shown. */
  private show(change: Partial<Shown>): void {
    const next = { ...this.shown, ...change, fitted: new Set<number>(), name: String(this.count++) };
    if (next.filter) next.fitted = new Set(this.model.shown(next).map((m) => m.id));
    this.shown = next;
    this.open = null;
    clearTicks();
    this.model.setTicks(new Map(), null);
  }

  private async settled(): Promise<void> {
    untickGone(this.view);
    await ticksUnderWay();
    this.model.untickGone(this.shown);
  }

  private async act(): Promise<string> {
    const rows = await this.rows();
    const open = this.open;
    const row = rows.find((one) => (one.whole?.ids ?? [one.id]).includes(open ?? -1));
    const { ticked, reach } = useDesk.getState();
    const said = target(ticked, open, row, reach);
    const act = actsTried[this.random(actsTried.length)];
    if (!said) return 'nothing to act on';
    // What the model says is shown as ticked, or is open.
    const here = this.model.rows(this.shown).find(({ messages }) => messages.some(({ id }) => id === open));
    const whole =
      row !== undefined && open !== null && here !== undefined && reachOf(open, row, reach) === 'conversation';
    const expected = this.model.ticks.size
      ? [...new Set([...this.model.ticks.values()].flat())]
      : whole
        ? here.messages.map(({ id }) => id)
        : [open ?? -1];
    expect(sorted(said.selection.ids)).toEqual(sorted(expected));
    expect(said.rows).toBe(this.model.ticks.size || 1);
    await runAct(said.selection, act);
    const changes = this.model.act(said.selection.ids, act);
    if (changes.length) this.model.done.push(changes);
    if (act.do === 'move') {
      clearTicks();
      this.model.setTicks(new Map(), null);
    }
    return `${JSON.stringify(act)} on ${said.selection.ids.join(' ')}`;
  }

  private async tickOne(): Promise<string> {
    const rows = await this.rows();
    if (rows.length === 0) return 'no row to tick';
    const row = rows[this.random(rows.length)];
    const on = !useDesk.getState().ticked.has(rowKey(row));
    tick(row, on);
    const ticks = new Map(this.model.ticks);
    const messages = this.model.rows(this.shown).find(({ key }) => key === rowKey(row))?.messages ?? [];
    if (on)
      ticks.set(
        rowKey(row),
        messages.map(({ id }) => id),
      );
    else ticks.delete(rowKey(row));
    this.model.setTicks(ticks, row.id);
    return `${on ? 'ticked' : 'unticked'} ${rowKey(row)}`;
  }

  private async tickSome(): Promise<string> {
    const only = (['all', 'unread', 'read'] as const)[this.random(3)];
    const counts = await this.service.heldCounts(this.view, this.grouping);
    tickOnly(this.view, this.grouping, only);
    await ticksUnderWay();
    // Exactly those: of a conversation only the messages that are so.
    const meant = this.model
      .rows(this.shown)
      .map(({ key, messages }): [number, number[]] => [
        key,
        messages.filter(({ unread }) => only === 'all' || unread === (only === 'unread')).map(({ id }) => id),
      ]);
    const ticks = new Map(meant.filter(([, ids]) => ids.length > 0));
    this.model.setTicks(ticks, null);
    // What the menu said beforehand is what is ticked.
    expect(counts[only]).toEqual({ rows: ticks.size, messages: [...ticks.values()].flat().length });
    return `ticked ${only}`;
  }

  private async tickRange(): Promise<string> {
    const rows = this.model.rows(this.shown);
    if (rows.length === 0) return 'no row to tick';
    const index = this.random(rows.length);
    // By what it shows, wherever it stood when it was pressed.
    tickRange(this.view, this.grouping, { index: 0, id: rows[index].messages[0].id }, this.open);
    await ticksUnderWay();
    const anchor = this.model.anchor ?? this.open;
    const of = (id: number | null) =>
      id === null
        ? -1
        : rows.findIndex(({ key }) => key === (this.shown.grouped ? this.model.mail[id].conversation : id));
    const from = of(anchor) < 0 ? index : of(anchor);
    const range = rows.slice(Math.min(from, index), Math.max(from, index) + 1);
    const ticks = new Map(this.model.beforeRange);
    for (const { key, messages } of range)
      ticks.set(
        key,
        messages.map(({ id }) => id),
      );
    this.model.setTicks(ticks, anchor, this.model.beforeRange);
    return `ticked the range to ${index}`;
  }

  private async openOne(): Promise<string> {
    const rows = await this.rows();
    if (rows.length === 0) return 'no row to open';
    const { id, whole } = rows[this.random(rows.length)];
    const ids = whole?.ids ?? [id];
    this.open = this.random(2) ? id : ids[this.random(ids.length)];
    // Read because it is open: nothing that was done, and nothing that Undo takes back.
    await this.service.act(`read${this.count++}`, { ids: [this.open] }, { do: 'read', value: true, opened: true });
    this.model.act([this.open], { do: 'read', value: true });
    return `opened ${this.open}`;
  }

  private async onRow(): Promise<string> {
    const rows = await this.rows();
    if (rows.length === 0) return 'no row to act on';
    const row = rows[this.random(rows.length)];
    const act = actsTried[this.random(actsTried.length)];
    const { ids } = rowTarget(row).selection;
    const messages = this.model.rows(this.shown).find(({ key }) => key === rowKey(row))?.messages ?? [];
    expect(sorted(ids)).toEqual(sorted(messages.map(({ id }) => id)));
    await runAct({ ids }, act);
    const changes = this.model.act(ids, act);
    if (changes.length) this.model.done.push(changes);
    return `${JSON.stringify(act)} on the row ${rowKey(row)}`;
  }

  private async otherTab(): Promise<string> {
    const ids = [this.random(this.model.mail.length), this.random(this.model.mail.length)];
    const act = actsTried[this.random(actsTried.length)];
    await this.service.act(`other${this.count++}`, { ids }, act);
    this.model.act(ids, act);
    return `another tab: ${JSON.stringify(act)} on ${ids.join(' ')}`;
  }

  private async undo(): Promise<string> {
    undoLast();
    await undoSettled();
    this.model.undo();
    return 'Undo';
  }

  /** The tab is opened again: what was done here is known, what was ticked is not. */
  private async reload(): Promise<string> {
    const { service } = await start(testPost({}), this.store);
    await service.overview();
    this.service = mockRoom.service = service;
    this.show({});
    return 'reloaded';
  }

  async step(): Promise<void> {
    const { random } = this;
    const kind = random(16);
    let did: string;
    if (kind < 3) did = await this.tickOne();
    else if (kind < 5) did = await this.tickSome();
    else if (kind < 6) did = await this.tickRange();
    else if (kind < 8) did = await this.openOne();
    else if (kind < 11) did = await this.act();
    else if (kind === 11) did = await this.onRow();
    else if (kind === 12) did = await (random(2) ? this.undo() : this.otherTab());
    else if (kind === 13) {
      await this.arrive(1 + random(2));
      did = 'mail arrived';
    } else if (kind === 14) {
      const filter = ([null, 'unread', 'flagged', 'attachments'] as const)[random(4)];
      const place = random(4) ? 'inbox' : ['archive', 'bin'][random(2)];
      const account = [null, ...accounts][random(3)];
      this.show({ filter, place, account, grouped: random(2) === 1, order: orders[random(orders.length)] });
      did = `showed ${JSON.stringify(this.shown)}`;
    } else did = await (random(3) ? this.undo() : this.reload());
    await this.settled();
    this.log.push(did);
    await this.check();
  }

  /** What is shown and counted is what the model has. */
  private async check(): Promise<void> {
    expect(plain(useDesk.getState().ticked)).toEqual(plain(this.model.ticks));
    const window = await this.service.rows(this.view, this.grouping, 0, 1_000);
    const rows = this.model.rows(this.shown);
    expect(window.rows.map((row) => [rowKey(row), sorted(row.whole?.ids ?? [row.id])])).toEqual(
      rows.map(({ key, messages }) => [key, sorted(messages.map(({ id }) => id))]),
    );
    expect(window.unread).toBe(rows.flatMap(({ messages }) => messages).filter(({ unread }) => unread).length);
    for (const place of ['inbox', 'archive', 'bin'] as const) {
      const all = await this.service.rows({ kind: 'place', place }, { grouped: false, elsewhere: false }, 0, 1_000);
      const state = all.rows.map(({ id, unread, flagged }) => ({ id, unread, flagged }));
      const its = this.model.mail.filter((m) => m.place === place).reverse();
      expect(state).toEqual(its.map(({ id, unread, flagged }) => ({ id, unread, flagged })));
    }
  }
}

test(`${sequences} random sequences: acts go to what was said, counts hold, Undo takes back what was done here`, async () => {
  for (let seed = 1; seed <= sequences; seed++) {
    const person = await Person.at(seed);
    try {
      for (let n = 0; n < steps; n++) await person.step();
    } catch (error) {
      throw new Error(`Sequence ${seed}, after: ${person.log.join('; ')}`, { cause: error });
    }
  }
});
