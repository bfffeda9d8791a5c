import fc from 'fast-check';
import { StateColumns } from './columns';
import { statePackSize } from '../storage/keys';
import { expunged, Tables } from './internedTables';
import { Views, type ViewSource } from '../search/views';
import { didTo, messages, short } from '../../core/text/sentences';

describe('columns', () => {
  test('grow without losing what they hold, and come back from packs', () => {
    const columns = new StateColumns();
    columns.grow(statePackSize * 2 + 10);
    const ids = Int32Array.of(0, statePackSize, statePackSize * 2 + 9);
    columns.apply(ids, { place: Uint16Array.of(1, 2, 3), date: 77, bits: 5 });
    const again = new StateColumns();
    for (let pack = 0; pack < 3; pack++) again.load(pack, columns.pack(pack));
    again.count = columns.count;
    expect([...again.pick('place', ids)]).toEqual([1, 2, 3]);
    expect([...again.pick('date', ids)]).toEqual([77, 77, 77]);
    expect(again.bits[1]).toBe(0);
  });

  test('applying a change twice is applying it once', () => {
    const columns = new StateColumns();
    columns.grow(10);
    const change = { place: Uint16Array.of(4, 5), placedAt: 9 };
    columns.apply(Int32Array.of(3, 8), change);
    const once = columns.pack(0);
    columns.apply(Int32Array.of(3, 8), change);
    expect(columns.pack(0)).toEqual(once);
  });
});

describe('tables', () => {
  test('the same words have the same index; sets of labels have no order', () => {
    const tables = new Tables();
    expect(tables.placeIndex('inbox')).toBe(tables.placeIndex('inbox'));
    expect(tables.labelSetIndex(['b', 'a'])).toBe(tables.labelSetIndex(['a', 'b']));
    expect(tables.labelSetIndex([])).toBe(0);
    expect(tables.places.items[expunged]).toBe('gone');
  });

  test('what was added is written once, and replayed once however often', () => {
    const tables = new Tables();
    const index = tables.placeIndex('folder:x');
    const added = tables.takeNew();
    expect(added.places.items).toEqual(['folder:x']);
    expect(tables.takeNew().places.items).toEqual([]);
    const again = new Tables();
    again.replay(added);
    again.replay(added);
    expect(again.placeIndex('folder:x')).toBe(index);
    expect(again.takeNew().places.items).toEqual([]);
  });

  test('what could not be written is written with the next command', () => {
    const tables = new Tables();
    tables.placeIndex('folder:x');
    tables.giveBack(tables.takeNew());
    expect(tables.takeNew().places.items).toEqual(['folder:x']);
  });
});

test('views: newest first, whatever the order of arrival', () => {
  // Near each other, within one second, before 1970, and where only a forger dates his mail.
  const time = fc.oneof(
    fc.integer({ min: -20, max: 20 }),
    fc.integer({ min: 0, max: 5_000 }),
    fc.constantFrom(-9e12, 2.5e14),
  );
  fc.assert(
    fc.property(fc.array(fc.array(time, { maxLength: 6 }), { maxLength: 6 }), (batches) => {
      const columns = new StateColumns();
      const tables = new Tables();
      const source = { columns, tables, damaged: new Set<number>() } as unknown as ViewSource;
      const views = new Views(source);
      let first = 0;
      for (const dates of batches) {
        columns.grow(first + dates.length);
        const ids = Int32Array.from(dates, (_, i) => first + i);
        columns.apply(ids, { date: Float64Array.from(dates), place: tables.placeIndex('inbox') });
        views.insert(ids);
        first += dates.length;
      }
      const merged = [...views.list({ kind: 'place', place: 'inbox' })];
      const sorted = Array.from({ length: first }, (_, id) => id).sort(
        (a, b) => columns.date[b] - columns.date[a] || b - a,
      );
      expect(merged).toEqual(sorted);
      views.rebuild();
      expect([...views.list({ kind: 'place', place: 'inbox' })]).toEqual(sorted);
    }),
  );
});

test('what was done, in words', () => {
  expect(messages(1)).toBe('1 message');
  expect(messages(1_200)).toBe('1,200 messages');
  expect(didTo('Archived', 3, null)).toBe('Archived 3 messages');
  expect(didTo('Moved', 1, 'Berth 4', ' to Weather')).toBe('Moved “Berth 4” to Weather');
  expect(didTo('Binned', 1, '')).toBe('Binned “No subject”');
  expect(short('x'.repeat(100))).toHaveLength(60);
});
