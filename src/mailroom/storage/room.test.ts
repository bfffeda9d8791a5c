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

test('what was felt for lately is not felt for again, and no more is promised than that', () => {
  const { state, room } = disk(1_000 * mega);
  for (let n = 0; n < 100; n++) {
    state.now += 1;
    expect(room.has(100_000)).toBe(true);
    state.others += 100_000;
  }
  // 10 MB, felt for in pieces of some 4 with a megabyte each, and the reserve.
  expect(state.written).toBeLessThan(30 * mega);
});

test('half a second later the disk is felt again; a disk that filled up meanwhile is full', () => {
  const { state, room } = disk(30 * mega);
  expect(room.has(1_000)).toBe(true);
  state.others = 22 * mega;
  state.now = 499;
  expect(room.has(1_000)).toBe(true);
  state.now = 501;
  expect(room.has(1_000)).toBe(false);
  state.others = 20 * mega;
  expect(room.has(1_000)).toBe(true);
});

test('where more can’t be felt for ahead, what is needed is', () => {
  const { state, room } = disk(12 * mega);
  expect(room.has(mega)).toBe(true);
  state.others += mega;
  state.now = 1;
  expect(room.has(mega)).toBe(true);
  state.others += mega;
  state.now = 2;
  expect(room.has(mega + 1)).toBe(false);
});
