// The worker's entry: the mailroom in one tab, open where the lock is held, relayed where it is not.
import { expose } from 'comlink';
import type { MailroomEvent } from './border/events';
import { ParsePool } from './reading/parsePool';
import { demoOffice, patience, standInPostOffice } from './post/standIn';
import { machineClock } from './time/clock';
import { NewerStorage } from './storage/records';
import { openService } from './service/service';
import { browserRoom } from './storage/room';
import { browserStore } from './storage/recordStore';
import type { WorkerSide } from './border/workerSide';
import { Tabs } from './border/tabs';
import type { Mailroom } from './border/mailroom';
import { reasonOf } from '../core/text/sentences';

/** The longest that a timer takes, in milliseconds. */
const forEver = 2 ** 31 - 1;
/** How long after the mailbox is open the reader is begun with, in milliseconds. */
const readerAfter = 1_500;
const cores = navigator.hardwareConcurrency || 2;
let hear: (event: MailroomEvent) => void = () => undefined;

async function shippedModel() {
  const response = await fetch('/junk-model.bin', { signal: AbortSignal.timeout(patience) }).catch(() => null);
  return response?.ok ? new Uint8Array(await response.arrayBuffer()) : null;
}

async function sharedDomains(): Promise<ReadonlySet<string>> {
  const { default: list } = await import('email-providers/all.json');
  return new Set(list);
}

const tabs = new Tabs<Mailroom, MailroomEvent>({
  tab: crypto.randomUUID(),
  channel: new BroadcastChannel('wide-sort-mailroom'),
  takeLock: (hold) => void navigator.locks.request('wide-sort-mailroom', hold),
  open: async (tell) => {
    // First of all: on a full disk it gives the database the room to open.
    const room = await browserRoom();
    const makeWorker = () => new Worker(new URL('./reading/parse.worker.ts', import.meta.url), { type: 'module' });
    // Never ended, and begun with soon, mostly before anybody asks: opening a message does not wait for a worker's start.
    const reader = new ParsePool(1, makeWorker, { idle: forEver });
    const service = await openService({
      store: browserStore(),
      room,
      clock: machineClock,
      pool: new ParsePool(Math.max(1, cores - 1), makeWorker),
      reader,
      post: standInPostOffice(),
      demo: demoOffice(),
      shippedModel,
      sharedDomains,
      tell,
    }).catch((error: unknown) => {
      if (error instanceof NewerStorage) throw error;
      const text = reasonOf(error);
      throw new Error(
        `The browser does not let this page store anything (${text}). A private window does that, or a setting for site data. Nothing of yours was changed; open Wide Sort in an ordinary window, or reload the page.`,
      );
    });
    // The first rows need the processor more.
    setTimeout(() => reader.start(), readerAfter);
    return service;
  },
  heard: (event) => hear(event),
});

const side: WorkerSide = {
  call: tabs.call,
  subscribe: (listener) => {
    hear = listener;
  },
};

expose(side);
