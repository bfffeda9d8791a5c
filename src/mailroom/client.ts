// The mailroom from the page's side: a worker behind the typed interface of the border.
import { proxy, wrap } from 'comlink';
import type { Mailroom } from './border/mailroom';
import type { MailroomEvent } from './border/events';
import type { ArgumentsOf, MethodOf, WorkerSide } from './border/workerSide';
import { mailroomWorker } from './startWorker';

const listeners = new Set<(event: MailroomEvent) => void>();
const side = wrap<WorkerSide>(mailroomWorker);
void side.subscribe(
  proxy((event: MailroomEvent) => {
    for (const listener of listeners) listener(event);
  }),
);

/** The mailroom. Every method of {@link Mailroom}, carried to the worker by its name. */
export const mailroom = new Proxy({} as Mailroom, {
  get: (_, method) =>
    typeof method === 'string'
      ? (...args: ArgumentsOf<Mailroom, MethodOf<Mailroom>>) => side.call(method as MethodOf<Mailroom>, args)
      : undefined,
});

/** Hears what the mailroom tells; returns how to stop. */
export function onMailroom(listener: (event: MailroomEvent) => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}
