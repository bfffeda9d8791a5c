// The post office at work: what is new there is fetched, and how it stands is known.
import { messages, reasonOf } from '../../core/text/sentences';
import type { PostStatus } from '../border/overview';
import { addMessages } from '../intake/incoming';
import { followRules, type ToFollow } from '../commands/ruleFollows';
import { countAnswers } from '../post/itemMail';
import { answerHeld } from '../post/automaticAnswers';
import { sendByRules, type ToSendByRules } from '../post/ruleSends';
import { incomingFrom } from '../post/incomingFrom';
import { toTell } from '../questions/notifications';
import type { Open, ServiceHost } from './host';
import type { PostStanding } from './postStanding';

export class PostRoom {
  private checking: Promise<PostStatus> | null = null;

  constructor(
    private readonly open: Open,
    private readonly host: ServiceHost,
    private readonly standing: PostStanding,
  ) {}

  /** Fetches what has arrived. */
  readonly check = (): Promise<PostStatus> => {
    const { mailbox } = this.open;
    if (!mailbox.postOn) return Promise.resolve(this.standing.status());
    if (this.checking) return this.checking;
    // A mailbox that is being filled for the first time has no news.
    const first = Number(mailbox.cursor === null);
    mailbox.filling += first;
    this.checking = this.fetchNew()
      .then((arrived) => this.standing.noteOf(mailbox, { lastChecked: this.host.clock.now(), arrived, error: null }))
      .catch((error: unknown) => this.standing.noteOf(mailbox, { error: reasonOf(error) }))
      .then(() => {
        this.checking = null;
        mailbox.filling -= first;
        this.told();
        return this.standing.status();
      });
    return this.checking;
  };

  /** Waits for a check that is under way, which may have begun too early, then checks. */
  readonly checkAgain = async (): Promise<void> => {
    await this.checking;
    await this.check();
  };

  /** Sets how much arrives in the demo. */
  readonly setRate = async (perMinute: number, paused: boolean): Promise<PostStatus> => {
    try {
      this.standing.note({ ...(await this.host.demo.setRate({ perMinute, paused })), error: null });
    } catch (error) {
      this.standing.note({ error: reasonOf(error) });
    }
    this.told();
    return this.standing.status();
  };

  private told(): void {
    this.host.tell({ kind: 'revision', revision: this.open.mailbox.revision });
  }

  /** Answers automatically what was held, where the person wants that. What fails is told; it is not tried again. */
  private async answer(ids: readonly number[]): Promise<void> {
    const { mailbox } = this.open;
    await answerHeld(mailbox, this.host.post, ids).catch((error: unknown) =>
      mailbox.tell(`An automatic answer could not be sent: ${reasonOf(error)}`),
    );
  }

  /** Counts what the invited answered. What can’t be read is left for the person to look at. */
  private async countAnswers(ids: readonly number[]): Promise<void> {
    const { mailbox } = this.open;
    await countAnswers(mailbox, ids).catch((error: unknown) =>
      mailbox.tell(`An answer to an invitation could not be counted: ${reasonOf(error)}`),
    );
  }

  /** Forwards and answers what rules want sent. What fails is told; it is not tried again. */
  private async sendByRules(sends: readonly ToSendByRules[]): Promise<void> {
    const { mailbox } = this.open;
    await sendByRules(mailbox, this.host.post, sends).catch((error: unknown) =>
      mailbox.tell(`What a rule was to send could not be sent: ${reasonOf(error)}`),
    );
  }

  /** Fetches what is new; returns how many messages it was. */
  private async fetchNew(): Promise<number> {
    const { mailbox } = this.open;
    const { post, demo, clock, tell } = this.host;
    // What one check fetches is one entry of the Logbook, in however many parts it comes.
    const job = `post-${mailbox.seq}-${clock.now()}`;
    // Messages are threaded as they come in: what they may answer must be in memory.
    await mailbox.ready();
    if (this.standing.status().lastChecked === null) this.standing.note(await demo.rate());
    const news = mailbox.cursor !== null;
    let arrived = 0;
    for (let more = true, part = 1; more && mailbox.postOn; part++) {
      const changes = await post.changes(
        mailbox.cursor,
        mailbox.setup.accounts.map(({ address }) => address),
      );
      more = changes.more;
      if (changes.arrived.length === 0 && changes.cursor === mailbox.cursor) break;
      const incoming = await incomingFrom(changes, this.host.pool.parse, mailbox.setup.junk.strictness > 0);
      arrived += incoming.length;
      const sends: ToSendByRules[] = [];
      const follows: ToFollow[] = [];
      const ids = await mailbox.exclusive(() =>
        addMessages(mailbox, incoming, {
          command: `${job}/${part}`,
          by: 'post office',
          says: `${messages(arrived)} arrived`,
          cursor: changes.cursor,
          sends: (id, its) => sends.push({ id, sends: its }),
          follows: (id, its) => follows.push({ id, follows: its }),
        }),
      );
      if (news) await this.answer(ids);
      if (news) await this.sendByRules(sends);
      if (news) await followRules(mailbox, follows, this.host.sharedDomains);
      if (news) await this.countAnswers(ids);
      const told = news ? toTell(mailbox, ids) : [];
      if (told.length) tell({ kind: 'told', rows: told });
    }
    return arrived;
  }
}
