// The part of the border (mailroom.ts) that is about mail coming in and going out.

/** How an import stands. Bytes and messages are of all its files. */
export interface ImportProgress {
  job: string;
  file: string;
  fileIndex: number;
  files: number;
  bytesDone: number;
  bytesTotal: number;
  added: number;
  already: number;
  damaged: number;
}

/** What an import came to. */
export interface ImportReport {
  added: number;
  /** Messages that were here before, and were not added again. */
  already: number;
  damaged: number;
  /** Files that could not be taken, each with the reason. */
  refused: { file: string; reason: string }[];
  cancelled: boolean;
  /** Why it ended early, where it did not end by itself: a full disk, say. */
  error: string | null;
}

/** `lost`: how many messages are not in it, because their bytes are damaged or missing. */
export type ExportResult =
  { ok: true; blob: Blob; name: string; count: number; lost: number } | { ok: false; error: string };
