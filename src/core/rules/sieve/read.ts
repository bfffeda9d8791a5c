// Reading Sieve scripts as rules: our own exactly, those of others as far as rules can say it. What can’t be taken is
// listed with its line; nothing is dropped in silence.
import type { z } from 'zod';
import { idSchema } from '../../data/id';
import { untraced } from '../../data/untraced';
import { folderSchema, type Folder, type Place } from '../../mail/place';
import { inks, labelSchema, type Ink, type Label } from '../../mail/label';
import { endsStation, groupSchema, mostConditions, ruleSchema, type Rule } from '../rule';
import { effects, type Action } from '../../effects/effects';
import { asConditions, combined, nodeOf, NotTaken, type Node } from './conditions';
import { meaningOf, type Command, type Test } from './meaning';
import { namesOf, type ScriptNames } from './names';
import { parseScript, type Spot } from './script';
import { commandsOf, everyExtension, sameCode } from './ownCode';
import { writeScript, type SieveScript, type Written, notRules, type Vacation } from './write';

/** Something to be told of a script: at which line, and what. */
export interface Remark {
  at: Spot;
  says: string;
}

export interface ReadScript {
  rules: Rule[];
  /** Folders and labels that the rules speak of and the setup does not have. */
  folders: Folder[];
  labels: Label[];
  /** What was not taken. */
  left: Remark[];
  /** What was taken, but means something else here. */
  notes: Remark[];
}

export type ReadResult = { ok: true; read: ReadScript } | { ok: false; error: Remark };

/** Where a folder stands, as one text. */
const spotOf = ({ name, parent }: Pick<Folder, 'name' | 'parent'>): string => `${parent ?? ''}\n${name}`;

class Taking {
  readonly rules: Rule[] = [];
  readonly folders: Folder[] = [];
  readonly labels: Label[] = [];
  readonly left: Remark[] = [];
  readonly notes: Remark[] = [];
  private names: ScriptNames;
  /** The mailboxes and keywords of which the script made folders and labels, and its folders by where they stand. */
  private readonly madePlaces = new Map<string, Place>();
  private readonly madeLabels = new Map<string, string>();
  private foldersBy: Map<string, Folder> | null = null;
  private knownAs: Written | null = null;

  constructor(
    private readonly setup: Written,
    private readonly newId: () => string,
    private readonly required: ReadonlySet<string>,
  ) {
    this.names = namesOf(setup);
  }

  private get known(): Written {
    if (this.folders.length + this.labels.length === 0) return this.setup;
    return (this.knownAs ??= {
      ...this.setup,
      folders: [...this.setup.folders, ...this.folders],
      labels: [...this.setup.labels, ...this.labels],
    });
  }

  /** Takes up the folders and labels that a script of ours names at its top. */
  declare(comments: readonly string[]): void {
    const take = <T extends { id: string }>(prefix: string, schema: z.ZodType<T>, here: readonly T[], into: T[]) => {
      const ids = new Set(here.map(({ id }) => id));
      for (const comment of comments) {
        if (!comment.startsWith(`${prefix} {`)) continue;
        const parsed = schema.safeParse(jsonOf(comment.slice(prefix.length + 1)));
        if (!parsed.success || ids.has(parsed.data.id)) continue;
        ids.add(parsed.data.id);
        into.push(parsed.data);
      }
    };
    take('folder', folderSchema, this.setup.folders, this.folders);
    take('label', labelSchema, this.setup.labels, this.labels);
    this.names = namesOf(this.known);
  }

  /** Rules that stand whole in comments, and what the comments say of the code that follows them. */
  comments(comments: readonly string[]): { name: string; id: string | null; as: Rule | null } {
    let said: { name: string; id: string | null; as: Rule | null } = { name: '', id: null, as: null };
    for (const comment of comments) {
      const at = comment.indexOf(': ');
      const [key, value] = at < 0 ? [comment, ''] : [comment.slice(0, at), comment.slice(at + 2)];
      if (key === 'rule' || key === 'rule named by itself')
        said = { name: key === 'rule' ? value : '', id: null, as: null };
      else if (key === 'id') said.id = idSchema.safeParse(jsonOf(value)).data ?? null;
      else if (key === 'as' || key === 'off' || key === 'only here') {
        const rule = ruleSchema.safeParse(jsonOf(value)).data ?? null;
        if (key === 'as') said.as = rule;
        else if (rule) this.rules.push(rule);
      }
    }
    return said;
  }

  /** Takes what can be taken; false where it can't, and then it is listed. */
  private take(work: () => void): boolean {
    try {
      work();
      return true;
    } catch (error) {
      if (!(error instanceof NotTaken)) throw error;
      this.left.push({ at: error.at, says: error.message });
      return false;
    }
  }

  commands(commands: readonly Command[]): void {
    const ending = commands.findLastIndex(({ does }) => does !== 'keep' && does !== 'stop');
    for (const [i, command] of commands.entries()) {
      const other = notRules.find((kind) => command.comments.some((comment) => comment.startsWith(`${kind}: `)));
      if (other) {
        const what = other === 'tray' ? 'A tray' : 'An automatic answer';
        this.notes.push({ at: command.at, says: `${what} is not taken up from a script: it is in the setup file.` });
        continue;
      }
      const said = this.comments(command.comments);
      const last = i >= ending;
      if (said.as && sameCode(command, said.as, this.known, this.required)) {
        this.rules.push(said.as);
        continue;
      }
      this.take(() => this.command(command, said, last));
    }
  }

  private command(command: Command, said: { name: string; id: string | null }, last: boolean): void {
    if (command.does === 'unknown') throw new NotTaken(command.at, command.says);
    if (command.does !== 'if') {
      // What stands at the end and only says what would happen anyway needs no rule.
      if (last && (command.does === 'keep' || command.does === 'stop')) return;
      this.add(command.at, { field: 'every' }, [command], said, last);
      return;
    }
    const earlier: Node[] = [];
    let first = true;
    let broken = false;
    for (const { test, block, at } of [
      ...command.branches,
      ...(command.otherwise ? [{ test: null, block: command.otherwise, at: command.at }] : []),
    ]) {
      if (broken) {
        // Without the branch before it, it would act on what that one takes.
        this.left.push({
          at: block[0]?.at ?? at,
          says: 'It follows a branch that can’t be taken, so it is left out too.',
        });
        continue;
      }
      const taken = this.take(() => {
        const node: Node = test ? this.node(test) : { field: 'every' };
        const whole = butNot(node, earlier, at);
        const before = this.rules.length;
        this.block(at, whole, block, first ? said : { name: '', id: null }, last);
        first = false;
        // What a rule takes, no later one is asked about; everything else must be kept from the branches below.
        const [rule, ...more] = this.rules.slice(before);
        if (test && !(rule && more.length === 0 && endsStation(rule))) earlier.push(node);
      });
      broken = !taken;
    }
  }

  /** A block: its actions as one rule, and what it asks further as rules of their own. */
  private block(
    at: Spot,
    test: Node,
    block: readonly Command[],
    said: { name: string; id: string | null },
    last: boolean,
  ) {
    const inner = block.findIndex(({ does }) => does === 'if');
    if (inner < 0) return this.add(at, test, block, said, last);
    if (inner > 0) this.add(at, test, block.slice(0, inner), said, true);
    for (const command of block.slice(inner)) {
      if (command.does !== 'if') this.add(command.at, test, [command], { name: '', id: null }, last);
      else {
        const earlier: Node[] = [];
        for (const branch of command.branches) {
          const node = this.node(branch.test);
          const whole = butNot(combined('all', [test, node]), earlier, branch.at);
          this.block(branch.at, whole, branch.block, { name: '', id: null }, last);
          earlier.push(node);
        }
        if (command.otherwise)
          this.block(command.at, butNot(test, earlier, command.at), command.otherwise, { name: '', id: null }, last);
      }
    }
  }

  private add(
    at: Spot,
    test: Node,
    block: readonly Command[],
    said: { name: string; id: string | null },
    last: boolean,
  ) {
    const conditions = asConditions(test);
    if (!conditions) throw new NotTaken(at, 'Its tests are nested deeper than conditions of a rule can be.');
    const checked = groupSchema.safeParse(conditions.when);
    if (!checked.success) throw new NotTaken(at, `A rule’s condition ${checked.error.issues[0].message}.`);
    const then = this.actions(at, block, last);
    if (then.length === 0) return;
    this.rules.push({ id: said.id ?? this.newId(), name: said.name.slice(0, 200), on: true, ...conditions, then });
  }

  private actions(at: Spot, block: readonly Command[], last: boolean): Action[] {
    const out: Action[] = [];
    let move: Action | null = null;
    let stops = false;
    const moveTo = (place: Place, spot: Spot) => {
      if (move) this.notes.push({ at: spot, says: 'The message would stand in two mailboxes; here the first counts.' });
      else move = { do: 'move', place };
    };
    for (const command of block) {
      switch (command.does) {
        case 'stop':
          stops = true;
          break;
        case 'keep':
          out.push(...this.flagged(command.at, command.flags ?? []));
          moveTo('inbox', command.at);
          break;
        case 'discard':
          this.notes.push({ at: command.at, says: 'It would be deleted unseen; here it goes to the Bin.' });
          moveTo('bin', command.at);
          break;
        case 'fileinto':
          out.push(...this.flagged(command.at, command.flags ?? []));
          if (command.copy)
            this.left.push({
              at: command.at,
              says: 'A copy can’t be filed: a message is in one place. A label is the way.',
            });
          else moveTo(this.place(command.mailbox, command.at), command.at);
          break;
        case 'setflag':
          this.notes.push({ at: command.at, says: 'It takes other flags off; here flags are only added.' });
          out.push(...this.flagged(command.at, command.flags));
          break;
        case 'addflag':
          out.push(...this.flagged(command.at, command.flags));
          break;
        case 'removeflag':
          this.left.push({ at: command.at, says: 'A rule here takes no flags off.' });
          break;
        case 'redirect':
          this.left.push({
            at: command.at,
            says: `A rule here passes no message on as it stands (to ${command.to}). “Forward” in the rule sends it in a new one.`,
          });
          break;
        case 'unknown':
          this.left.push({ at: command.at, says: command.says });
          break;
        case 'if':
          throw new NotTaken(command.at, 'Its tests are nested deeper than conditions of a rule can be.');
      }
    }
    if (move) out.push(move);
    else if (stops) out.push({ do: 'stop' });
    if (move && !stops && !last)
      this.notes.push({ at, says: 'After filing, the script goes on; here the rules below are not asked.' });
    return out.slice(0, 20);
  }

  private flagged(at: Spot, flags: readonly string[]): Action[] {
    return flags.flatMap((flag): Action[] => {
      const lower = flag.toLowerCase();
      const known = effects.find(({ sieve }) => sieve?.systemFlag?.toLowerCase() === lower)?.sieve?.ofSystemFlag?.();
      if (known) return [known];
      if (flag.startsWith('\\')) {
        this.left.push({ at, says: `There is no flag “${flag}” here.` });
        return [];
      }
      const keyword = this.names.keywords.get(lower);
      const made = this.madeLabels.get(lower);
      if (!keyword && made !== undefined) return [{ do: 'label', label: made }];
      if (keyword)
        return 'ink' in keyword ? [{ do: 'ink', ink: keyword.ink }] : [{ do: 'label', label: keyword.label }];
      const label: Label = { id: this.newId(), name: flag.slice(0, 100), ink: this.nextInk() };
      this.labels.push(label);
      this.madeLabels.set(lower, label.id);
      this.knownAs = null;
      return [{ do: 'label', label: label.id }];
    });
  }

  private nextInk(): Ink {
    return inks[(this.setup.labels.length + this.labels.length) % inks.length];
  }

  private place(mailbox: string, at: Spot): Place {
    const known = this.names.mailboxes.get(mailbox.toLowerCase());
    if (known) return known;
    // The words in use for what is called Bin and Junk here (common practice, no source).
    const other = ({ trash: 'bin', spam: 'junk' } as const)[mailbox.toLowerCase()];
    if (other) {
      this.notes.push({ at, says: `“${mailbox}” is taken for ${other === 'bin' ? 'the Bin' : 'Junk'}.` });
      return other;
    }
    const made = this.madePlaces.get(mailbox.toLowerCase());
    if (made) return made;
    const by = (this.foldersBy ??= new Map(this.known.folders.map((folder) => [spotOf(folder), folder])));
    let parent: string | undefined;
    for (const name of mailbox.split('/', 1_000).filter(Boolean).slice(0, 8)) {
      const spot = spotOf({ name, parent });
      const there = by.get(spot);
      const folder: Folder = there ?? { id: this.newId(), name: name.slice(0, 100), ...(parent ? { parent } : {}) };
      if (!there) {
        this.folders.push(folder);
        by.set(spot, folder);
        this.knownAs = null;
      }
      parent = folder.id;
    }
    if (!parent) throw new NotTaken(at, 'The mailbox has no name.');
    this.madePlaces.set(mailbox.toLowerCase(), `folder:${parent}`);
    return `folder:${parent}`;
  }

  private node(test: Test): Node {
    return nodeOf(test, (at, says) => this.notes.push({ at, says }));
  }
}

/** What holds where none of the branches before it does. */
function butNot(node: Node, earlier: readonly Node[], at: Spot): Node {
  if (earlier.length > mostConditions)
    throw new NotTaken(at, 'More branches stand before it than a rule can have conditions.');
  return earlier.length ? combined('all', [node, combined('none', [...earlier])]) : node;
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/**
 * Reads a script. `setup` names the folders, labels and accounts that are there; `newId` makes ids. A syntax error is
 * told with its line and column, and nothing is taken.
 */
export function readScript(text: string, setup: Written, newId: () => string): ReadResult {
  return untraced(() => rulesOf(text, setup, newId));
}

function rulesOf(text: string, setup: Written, newId: () => string): ReadResult {
  const parsed = parseScript(text);
  if (!parsed.ok) return parsed;
  const { commands, comments } = parsed.script;
  const meaning = meaningOf(parsed.script);
  const taking = new Taking(setup, newId, meaning.required);
  taking.declare([...commands.flatMap((command) => command.comments), ...comments]);
  // Rules that stand in the comments above “require” are the first.
  for (const command of commands) if (command.name === 'require') taking.comments(command.comments);
  taking.commands(meaning.commands);
  taking.comments(comments);
  const told = new Set(taking.left.map(({ at }) => `${at.line}:${at.column}`));
  const problems = meaning.problems.filter(({ at }) => !told.has(`${at.line}:${at.column}`));
  const { rules, folders, labels, left, notes } = taking;
  const ids = new Set<string>();
  for (const rule of rules) {
    if (ids.has(rule.id)) rule.id = newId();
    ids.add(rule.id);
  }
  const byLine = (a: Remark, b: Remark) => a.at.line - b.at.line || a.at.column - b.at.column;
  return {
    ok: true,
    read: { rules, folders, labels, left: [...problems, ...left].sort(byLine), notes: notes.sort(byLine) },
  };
}

/** The rules of a setup as a Sieve script, and what of them it can’t say. */
export function scriptOf(setup: Written, answers: readonly Vacation[] = []): SieveScript {
  const plain = (rule: Rule, code: string): boolean => {
    const taking = new Taking(setup, () => rule.id, new Set(everyExtension));
    taking.commands(commandsOf(code, everyExtension));
    const [own] = taking.rules;
    const named = rule.name === rule.name.replace(/\s+/g, ' ').trim();
    return (
      taking.rules.length === 1 &&
      taking.left.length + taking.notes.length + taking.labels.length + taking.folders.length === 0 &&
      named &&
      JSON.stringify([own.when, own.unless, own.then]) === JSON.stringify([rule.when, rule.unless, rule.then]) &&
      endsStation(own) === endsStation(rule)
    );
  };
  return writeScript(setup, plain, answers);
}
