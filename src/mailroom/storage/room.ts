// Room on the disk: felt for before anything is written, and a reserve that is given back when the disk is full.
//
// A database whose write failed for want of room is closed by the browser, opened again, and, where that fails for want
// of room too, thrown away with all mail. So a write is not begun where there is no room for it, and the reserve gives
// the browser what it needs to open the database.

/** Room on the disk. Sizes in bytes. */
export interface Room {
  /** Whether there is room for so much more, and some beside it for the database itself. */
  has(bytes: number): boolean;
  /** Gives the reserve back to the disk, or half of it. */
  release(part?: 'half'): void;
}

/** Where nothing is known of the disk. */
export const anyRoom: Room = { has: () => true, release: () => undefined };

/** Room that is kept free beside what is written, in bytes: the database itself needs some. */
const margin = 1 << 20;

/** So much is held in reserve. */
const reserve = 8 << 20;

/**
 * So long room that was felt for counts as there, in milliseconds: as long as a write may take anyway. Feeling for it takes
 * as long as writing, and while much comes in would be half of all work.
 */
const felt = 500;
/** So much more is felt for at once: for the few records of one command, and while much is written. */
const [ahead, farAhead] = [256 << 10, 4 << 20];

/** What is needed of a file that is written at once. */
export interface SyncFile {
  getSize(): number;
  write(bytes: Uint8Array<ArrayBuffer>, options: { at: number }): number;
  truncate(size: number): void;
}

/** Bytes that no disk makes smaller. */
function noise(): Uint8Array<ArrayBuffer> {
  const block = new Uint8Array(1 << 20);
  for (let at = 0; at < block.length; at += 65_536) crypto.getRandomValues(block.subarray(at, at + 65_536));
  return block;
}

/** A file of the page's own that reaches over the reserve when room is felt for. */
export class ReserveFile implements Room {
  private held = 0;
  private readonly block = noise();
  /** What was felt for last, less what was begun to be written since; and until when that counts. */
  private left = 0;
  private until = -Infinity;

  /** `now`: milliseconds, from any moment on. */
  constructor(
    private readonly file: SyncFile,
    private readonly now: () => number,
  ) {
    this.held = file.getSize();
  }

  /** Writes so many bytes from a place on; whether there was room for them. */
  private fits(from: number, bytes: number): boolean {
    try {
      // At once, since the browser asks itself with each growth of a file whether that is allowed.
      this.file.truncate(from + bytes);
      for (let at = 0; at < bytes; at += this.block.length) {
        const part = this.block.subarray(0, Math.min(this.block.length, bytes - at));
        if (this.file.write(part, { at: from + at }) < part.length) return false;
      }
      return true;
    } catch {
      return false;
    }
  }

  private cut(to: number): void {
    try {
      this.file.truncate(to);
      this.held = to;
    } catch {
      // What it holds too much is cut off the next time.
    }
  }

  has(bytes: number): boolean {
    const needed = bytes + margin;
    const lately = this.now() < this.until;
    const fits =
      (lately && needed <= this.left) ||
      // What was felt for lately was used up: more will come.
      this.feel(needed + (lately ? farAhead : ahead)) ||
      this.feel(needed);
    if (fits) this.left -= bytes;
    return fits;
  }

  /** Whether there is room for so much beside the reserve, by writing it. */
  private feel(bytes: number): boolean {
    const from = Math.min(this.held, reserve);
    const fits = this.fits(from, reserve - from + bytes);
    // Where it does not fit, the reserve stays as large as it was: there is not less room by it.
    this.cut(fits ? reserve : from);
    this.left = fits ? bytes : 0;
    this.until = fits ? this.now() + felt : -Infinity;
    return fits;
  }

  release(part?: 'half'): void {
    this.cut(part ? Math.floor(Math.min(this.held, reserve) / 2) : 0);
  }
}

/** Opens a file to be written at once. Only workers can, and the library of types knows it only for them. */
const openSync = (file: FileSystemFileHandle): Promise<SyncFile> =>
  (file as unknown as { createSyncAccessHandle(): Promise<SyncFile> }).createSyncAccessHandle();

/** The browser's disk, as far as it lets a page feel for it: only in the worker that has the mailbox open. */
export async function browserRoom(): Promise<Room> {
  try {
    const folder = await navigator.storage.getDirectory();
    const file = await folder.getFileHandle('reserve', { create: true });
    const room = new ReserveFile(await openSync(file), () => performance.now());
    // Before the database is opened: on a full disk it needs room for that.
    if (!room.has(0)) room.release('half');
    return room;
  } catch {
    return anyRoom;
  }
}
