/** Does one thing after another: none sees another half done, and one that fails holds up nobody. */
export class InTurn {
  private last: Promise<unknown> = Promise.resolve();

  do<T>(work: () => Promise<T>): Promise<T> {
    const done = this.last.then(work);
    this.last = done.catch(() => undefined);
    return done;
  }

  /** Settled once everything is done that was asked for up to now. */
  get settled(): Promise<unknown> {
    return this.last;
  }
}
