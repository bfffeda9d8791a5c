// The typed call: any method of the mailroom by its name, from the page to the worker and from one tab to another.
import type { MailroomEvent } from './events';
import type { Mailroom } from './mailroom';

/** The names of the methods of an interface. */
export type MethodOf<Api> = keyof Api & string;
export type ArgumentsOf<Api, M extends keyof Api> = Api[M] extends (...args: infer A) => unknown ? A : never;
export type AnswerOf<Api, M extends keyof Api> = Api[M] extends (...args: never[]) => Promise<infer R> ? R : never;

/** What carries calls of an interface. */
export type Carry<Api> = <M extends MethodOf<Api>>(method: M, args: ArgumentsOf<Api, M>) => Promise<AnswerOf<Api, M>>;

/** What the page talks to: any method of the mailroom by name, and its events. */
export interface WorkerSide {
  call: Carry<Mailroom>;
  subscribe(hear: (event: MailroomEvent) => void): void;
}
