import { readFileSync } from 'node:fs';
import path from 'node:path';
import { featuresOf, Line, Message, parseEnvelope, readForJunk, readModel, scoreOf } from '../src/core';
import { lexicon } from './lexicon';
import { demoArrival, demoMailbox } from './mailbox';
import { demoSetup } from './setup';
import { deliveriesOf } from '../src/core';

const now = Date.UTC(2026, 10, 24, 10, 30);
const mailbox = demoMailbox(2_500, 7, now);
const envelopes = mailbox.map((m) => parseEnvelope(m.raw));

test('the same seed gives the same bytes, another seed others', () => {
  const again = demoMailbox(300, 7, now);
  expect(demoMailbox(300, 7, now)).toEqual(again);
  expect(demoMailbox(300, 8, now)[0].raw).not.toEqual(again[0].raw);
});

test('at any minute of the day it is the same mailbox: what is there at nine is there at night, as it was', () => {
  const at = (hour: number, minute = 0) => demoMailbox(800, 7, Date.UTC(2026, 10, 24, hour, minute));
  const bytes = ({ raw }: { raw: Uint8Array }) => Buffer.from(raw).toString('latin1');
  const night = new Map(at(22, 58).map((message) => [bytes(message), { ...message, raw: 0 }]));
  for (const [hour, minute] of [
    [0, 5],
    [8, 0],
    [12, 17],
    [12, 18],
  ]) {
    const then = at(hour, minute);
    expect(then).toHaveLength(800);
    // All but the last of the oldest ones, which had to stand in for what was still to come.
    const same = then.filter((message) => {
      const later = night.get(bytes(message));
      if (later) expect(later).toEqual({ ...message, raw: 0 });
      return later !== undefined;
    });
    expect(same.length).toBeGreaterThan(670);
    expect(Math.max(...then.map(({ date }) => date))).toBeLessThanOrEqual(Date.UTC(2026, 10, 24, hour, minute));
  }
});

test('2,500 different messages of three months, none damaged, none of the future', () => {
  expect(new Set(envelopes.map((e) => e.messageId)).size).toBe(2_500);
  expect(envelopes.filter((e) => e.damage !== null)).toEqual([]);
  const dates = envelopes.map((e) => e.date ?? NaN);
  expect(Math.max(...dates)).toBeLessThan(now);
  expect(Math.min(...dates)).toBeGreaterThan(now - 110 * 86_400_000);
});

test('about 140 in the Inbox once it rode the line, with wanted mail in Junk', () => {
  const line = new Line(demoSetup(now));
  // The person's filter: what comes with the application, and what was marked in these three months.
  const shipped = readModel(readFileSync(path.join(__dirname, '../public/junk-model.bin')));
  if (!shipped.ok) throw new Error(shipped.error);
  const { model } = shipped;
  const features = mailbox.map(({ raw }, i) => featuresOf(readForJunk(new Message(raw), envelopes[i])));
  for (const [i, { marked }] of mailbox.entries()) if (marked) model.learn(features[i], marked === 'junk');
  const score = (i: number) => Math.floor(scoreOf(model.margin(features[i])));
  const places = mailbox.map((m, i) =>
    m.place === 'inbox' ? line.decide(envelopes[i], { score: score(i), now, came: m.date }).place : m.place,
  );
  const inbox = places.filter((p) => p === 'inbox').length;
  expect(inbox).toBeGreaterThan(110);
  expect(inbox).toBeLessThan(170);
  expect(envelopes.some((e, i) => places[i] === 'junk' && /parts-direct/.test(e.from.address))).toBe(true);
});

test('subject and text speak of the same ship, part and harbour', () => {
  // Some harbours are called as their island is.
  const harbours = lexicon.harbour.filter((name) => !lexicon.island.includes(name));
  const kinds = [lexicon.ship, lexicon.part, harbours];
  // One ship is called by a harbour.
  const firstOf = (
    words: readonly string[],
    whole: string,
    text = whole.replace(words === harbours ? /Vedra Star/g : '', ''),
  ) =>
    words
      .filter((word) => text.includes(word))
      .sort((a, b) => text.indexOf(a) - text.indexOf(b))
      .at(0);
  let compared = 0;
  for (const [i, { subject, references }] of envelopes.entries()) {
    // Answers quote, junk says what it likes, and a bulletin has news of all places.
    if (references.length > 0 || mailbox[i].place === 'junk' || envelopes[i].listId) continue;
    const { text } = new Message(mailbox[i].raw);
    for (const words of kinds) {
      const [named, said] = [firstOf(words, subject), firstOf(words, text.replace(/\s+/g, ' '))];
      if (named === undefined || said === undefined) continue;
      expect([subject, said]).toEqual([subject, named]);
      compared++;
    }
  }
  expect(compared).toBeGreaterThan(300);
});

test('the Inbox holds at least 40 matters, and none of them fills it', () => {
  const matters = new Map<string, number>();
  for (const [i, { subject }] of envelopes.entries()) {
    if (mailbox[i].place !== 'inbox') continue;
    const matter = subject.replace(/^(Re: )+/, '');
    matters.set(matter, (matters.get(matter) ?? 0) + 1);
  }
  expect(matters.size).toBeGreaterThan(40);
  expect(Math.max(...matters.values())).toBeLessThan(12);
});

test('letters and numbers are right: no question mark within a word, no “1 metres”', () => {
  for (const { raw } of mailbox) {
    const { text } = new Message(raw);
    expect(text).not.toMatch(/(?<![.\d])1 (metres|days|weeks|persons|tonnes)\b/);
    expect(text.replace(/https?:\S+/g, '')).not.toMatch(/\p{L}\?\p{L}/u);
  }
});

test('it has what real mail has: threads, HTML, attachments, lists, character sets', () => {
  const ids = new Set(envelopes.map((e) => e.messageId));
  const answers = envelopes.filter((e) => e.references.length > 0);
  expect(answers.length).toBeGreaterThan(400);
  expect(answers.filter((e) => e.references.some((r) => ids.has(r))).length).toBe(answers.length);
  expect(Math.max(...envelopes.map((e) => e.references.length))).toBeGreaterThan(10);
  expect(new Set(envelopes.map((e) => e.listId)).size).toBeGreaterThan(5);
  expect(envelopes.filter((e) => e.attachments.length).length).toBeGreaterThan(80);
  const text = mailbox.map((m) => new TextDecoder('latin1').decode(m.raw)).join('\n');
  for (const charset of ['iso-8859-1', 'iso-8859-7', 'windows-1252', 'koi8-r', 'gb2312', 'shift_jis', 'utf-8'])
    expect(text).toContain(`charset=${charset}`);
  expect(text).toContain('List-Unsubscribe-Post: List-Unsubscribe=One-Click');
  // Every address is one that can belong to nobody (RFC 2606, RFC 5737).
  const domains = new Set(
    envelopes.flatMap((e) => [e.from, ...e.to, ...e.cc]).map((a) => a.address.replace(/^.*\./, '')),
  );
  expect([...domains]).toEqual(['example']);
});

test('arrivals are different messages of this moment', () => {
  const arrivals = Array.from({ length: 50 }, (_, i) => parseEnvelope(demoArrival(i, 7, now).raw));
  expect(new Set(arrivals.map((e) => e.messageId)).size).toBe(50);
  expect(arrivals.every((e) => e.date === now && e.damage === null)).toBe(true);
});

test('three trays with different rounds, one of them due within minutes, and a message that is put off and unanswered', () => {
  const setup = demoSetup(now);
  const deliveries = deliveriesOf(setup);
  const next = setup.trays.map(({ id }) => (deliveries.nextRound(id, now) ?? Infinity) - now);
  expect(new Set(setup.trays.map(({ round }) => JSON.stringify(round))).size).toBe(3);
  expect(Math.min(...next)).toBeGreaterThan(60_000);
  expect(Math.min(...next)).toBeLessThanOrEqual(5 * 60_000);
  const putOff = mailbox.flatMap((message, i) => (message.place === 'held' ? [{ message, i }] : []));
  expect(putOff).toHaveLength(1);
  const [{ message, i }] = putOff;
  expect(message.until).toBeGreaterThan(now);
  expect(envelopes.some(({ references }) => references.includes(envelopes[i].messageId))).toBe(false);
});
