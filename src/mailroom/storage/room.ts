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
 * So long the margin that was felt for counts as there, in milliseconds, while much is written: to feel for it takes as
 * long as to write it, and for each of many records it would be half of all work.
 */
const felt = 500;

/** From so many bytes on, none later than that after the one before, much is written. */
const much = 1 << 20;

/** What is kept on the disk for the writes to come, while much is written. */
const stockSize = 4 << 20;

/** What a write is given of the stock: the database writes more than the record. */
const share = (bytes: number): number => Math.ceil(bytes * 1.25) + (16 << 10);

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

/**
 * A file of the page's own that reaches over the reserve when room is felt for. While much is written it holds a stock beside the
 * reserve, and each write is given its bytes of it right before it begins: no other program can have taken them.
 */
export class ReserveFile implements Room {
  private held = 0;
  private readonly block = noise();
  /** Until when the margin that was felt for counts. */
  private until = -Infinity;
  /** When somebody last asked, and for how much one soon after another. */
  private asked = -Infinity;
  private flow = 0;

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
    const now = this.now();
    this.flow = bytes + (now < this.asked + felt ? this.flow : 0);
    this.asked = now;
    const given = this.held - share(bytes);
    if (now < this.until && given >= reserve) {
      this.cut(given);
      return true;
    }
    // What a person does is felt for each time. Where there is no stock to be had, what is needed may be there.
    return (this.flow > much && this.feel(bytes, stockSize)) || this.feel(bytes, 0);
  }

  /** Whether there is room for so much and the margin beside the reserve and a stock, by writing it. */
  private feel(bytes: number, stock: number): boolean {
    const from = Math.min(this.held, reserve);
    const fits = this.fits(from, reserve - from + stock + margin + bytes);
    // Where it does not fit, the reserve stays as large as it was: there is not less room by it.
    this.cut(fits ? reserve + stock : from);
    this.until = fits && stock ? this.now() + felt : -Infinity;
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
