// Rows of a view, fetched in pages as they come into sight; the page never holds the mailbox.
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Row, RowWindow } from '../../mailroom/border/rows';
import type { Grouping, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { pageSize, rowsKey, takeFirstRows } from './firstRows';
import { reasonOf } from '../../core/text/sentences';

/** Pages kept while scrolling; those farthest from sight are forgotten. */
const mostPages = 12;

export interface Rows {
  /** How many rows there are; null until the first answer. */
  total: number | null;
  /** How many of them stand for trays. */
  trays: number;
  /** How many messages they stand for, and how many of those are unread. */
  messages: number;
  unread: number;
  /** These rows came while mail that was here before was being brought in. */
  filling: boolean;
  /** How many of all messages were looked through so far, where these are not yet all rows; else null. */
  looked: RowWindow['looked'];
  /** A row by its position in the view; undefined while it is on its way. */
  at: (index: number) => Row | undefined;
  /** When the row at a position was asked for (performance.now()); 0 where it is on its way. */
  askedAt: (index: number) => number;
  /** The positions of rows in memory, in order. */
  known: () => number[];
  /** Says which rows are in sight: those are fetched. */
  show: (first: number, last: number) => void;
  error: string | null;
}

interface Page {
  rows: Row[];
  asked: number;
}

interface Held {
  key: string;
  total: number;
  trays: number;
  messages: number;
  unread: number;
  filling: boolean;
  looked: RowWindow['looked'];
  pages: Map<number, Page>;
}

export function useRows(view: View, grouping: Grouping): Rows {
  const revision = useMailbox((s) => s.revision);
  const key = rowsKey(view, grouping);
  const [held, setHeld] = useState<Held | null>(null);
  const [error, setError] = useState<string | null>(null);
  const sight = useRef({ first: 0, last: pageSize - 1 });
  const asked = useRef(new Map<number, string>());

  /** Fetches pages `from` to `to` at one moment, where one of them is not as it should be. */
  const fetchPages = useCallback(
    (from: number, to: number) => {
      const stamp = `${key} ${revision}`;
      const pages = Array.from({ length: to - from + 1 }, (_, n) => from + n);
      if (pages.every((page) => asked.current.get(page) === stamp)) return;
      for (const page of pages) asked.current.set(page, stamp);
      const now = performance.now();
      const [of, by] = JSON.parse(key) as [View, Grouping];
      // What was found in a text shows where it stands there, as soon as that is known: the rows need not wait for it.
      const showPassages = async (query: string, rows: Row[], number: number) => {
        const found = await mailroom.passages(
          query,
          rows.map(({ id }) => id),
        );
        if (asked.current.get(number) !== stamp || found.every((passage) => passage === null)) return;
        setHeld((old) => {
          const here = old?.key === key ? old.pages.get(number) : undefined;
          if (!old || !here) return old;
          const shown = here.rows.map((row, at) => ({ ...row, preview: found[at] ?? row.preview }));
          return { ...old, pages: new Map(old.pages).set(number, { ...here, rows: shown }) };
        });
      };
      const ask = () => mailroom.rows(of, by, from * pageSize, (to + 1) * pageSize);
      const early = from === 0 && to === 0 ? takeFirstRows(key) : null;
      // What was asked for early is old by now where the person came here by another page.
      (early ? early.then((window) => (window.revision < revision ? ask() : window)) : ask()).then(
        (window) => {
          const come = pages.filter((page) => asked.current.get(page) === stamp);
          if (come.length === 0) return;
          const rowsOf = (page: number) => window.rows.slice((page - from) * pageSize, (page - from + 1) * pageSize);
          setError(null);
          setHeld((old) => {
            const kept = new Map(old?.key === key ? old.pages : []);
            for (const page of come) kept.set(page, { rows: rowsOf(page), asked: now });
            const middle = sight.current.first / pageSize;
            const farthest = [...kept.keys()].sort((a, b) => Math.abs(b - middle) - Math.abs(a - middle));
            for (const far of farthest.slice(0, Math.max(0, kept.size - mostPages))) {
              kept.delete(far);
              asked.current.delete(far);
            }
            return {
              key,
              total: window.total,
              trays: window.trays,
              messages: window.messages,
              unread: window.unread,
              filling: window.filling,
              looked: window.looked,
              pages: kept,
            };
          });
          if (of.kind === 'found') for (const page of come) void showPassages(of.query, rowsOf(page), page);
        },
        (reason: unknown) => setError(reasonOf(reason)),
      );
    },
    [key, revision],
  );

  const show = useCallback(
    (first: number, last: number) => {
      sight.current = { first, last };
      fetchPages(Math.floor(first / pageSize), Math.floor(last / pageSize));
    },
    [fetchPages],
  );

  useEffect(() => show(sight.current.first, sight.current.last), [show]);

  const current = held?.key === key ? held : null;
  const at = useCallback(
    (index: number) => current?.pages.get(Math.floor(index / pageSize))?.rows[index % pageSize],
    [current],
  );
  const askedAt = useCallback(
    (index: number) => current?.pages.get(Math.floor(index / pageSize))?.asked ?? 0,
    [current],
  );
  const known = useCallback(
    () =>
      [...(current?.pages ?? [])]
        .sort(([a], [b]) => a - b)
        .flatMap(([page, { rows }]) => rows.map((_, i) => page * pageSize + i)),
    [current],
  );
  const { total = null, trays = 0, messages = 0, unread = 0, filling = false, looked = null } = current ?? {};
  return { total, trays, messages, unread, filling, looked, at, askedAt, known, show, error };
}
