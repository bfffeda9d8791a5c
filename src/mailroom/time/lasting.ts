// What is done once and asked for often: where it failed, it is tried again when it is next asked for.

export class Lasting {
  private running: Promise<void> | null = null;

  constructor(private readonly work: () => Promise<void>) {}

  /** Settled once the work is done. Rejects where it failed; the next one to ask has it tried again. */
  get(): Promise<void> {
    this.running ??= this.work().catch((error: unknown) => {
      this.running = null;
      throw error;
    });
    return this.running;
  }
}
