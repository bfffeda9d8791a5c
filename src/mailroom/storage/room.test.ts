// Room on a disk that is no more than a number: what is felt for is there, and the reserve is the last to go.
import { ReserveFile, type SyncFile } from './room';

const mega = 1 << 20;

/** A disk with so many bytes, of which the file takes some and others the rest; how much was ever written. */
function disk(size: number) {
  const state = { size, others: 0, file: 0, written: 0, now: 0 };
  const file: SyncFile = {
    getSize: () => state.file,
    write: (bytes, { at }) => {
      const fits = Math.max(0, Math.min(bytes.length, state.size - state.others - at));
      state.file = Math.max(state.file, at + fits);
      state.written += fits;
      return fits;
    },
    truncate: (to) => void (state.file = to),
  };
  return { state, room: new ReserveFile(file, () => state.now) };
}

test('there is room for as much as the disk has beside the reserve and a megabyte', () => {
  const { state, room } = disk(20 * mega);
  expect(room.has(11 * mega)).toBe(true);
  expect(state.file).toBe(8 * mega);
  state.now = 1_000;
  expect(room.has(11 * mega + 1)).toBe(false);
  // There is not less room by having asked.
  expect(state.file).toBe(8 * mega);
  room.release('half');
  expect(state.file).toBe(4 * mega);
  room.release();
  expect(state.file).toBe(0);
});

test('while much is written no more is written to feel for room than some of what they write', () => {
  const { state, room } = disk(1_000 * mega);
  for (let n = 0; n < 300; n++) {
    state.now += 1;
    expect(room.has(100_000)).toBe(true);
    state.others += 100_000;
  }
  // 30 MB, felt for in pieces of 4 with a megabyte each; the first one by one; the reserve.
  expect(state.written).toBeLessThan(80 * mega);
});

test('what a person does is felt for, however soon after something else: the disk may have filled up meanwhile', () => {
  const { state, room } = disk(30 * mega);
  for (let n = 0; n < 10; n++) expect(room.has(1_000)).toBe(true);
  state.others = 22 * mega;
  state.now = 1;
  expect(room.has(1_000)).toBe(false);
});

test('what one of many writes needs is there, whatever others have taken of the disk meanwhile', () => {
  const { state, room } = disk(30 * mega);
  for (let n = 0; n < 2; n++) expect(room.has(600_000)).toBe(true);
  const free = () => state.size - state.others - state.file;
  let written = 0;
  for (; room.has(100_000); written++) {
    // Others take all that is free; the write has what it was given before they could.
    const given = written === 0 ? 100_000 : free();
    expect(given).toBeGreaterThanOrEqual(100_000);
    state.others = state.size - state.file;
  }
  expect(written).toBeGreaterThan(10);
  // Then it is said; the reserve was not touched.
  expect(state.file).toBe(8 * mega);
});

test('half a second later the disk is felt again; a disk that filled up meanwhile is full', () => {
  const { state, room } = disk(30 * mega);
  for (let n = 0; n < 2; n++) expect(room.has(600_000)).toBe(true);
  state.others = state.size - state.file;
  state.now = 499;
  expect(room.has(1_000)).toBe(true);
  // What was kept for writes to come is room, too.
  state.now = 501;
  expect(room.has(1_000)).toBe(true);
  expect(state.file).toBe(8 * mega);
  state.others = state.size - state.file;
  expect(room.has(1_000)).toBe(false);
  state.others = 20 * mega;
  expect(room.has(1_000)).toBe(true);
});

test('where no stock is to be had, what is needed is', () => {
  const { state, room } = disk(12 * mega);
  expect(room.has(mega)).toBe(true);
  state.others += mega;
  state.now = 1;
  expect(room.has(mega)).toBe(true);
  state.others += mega;
  state.now = 2;
  expect(room.has(mega + 1)).toBe(false);
});
