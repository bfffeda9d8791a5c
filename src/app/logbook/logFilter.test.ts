import { wholeLog } from '../../mailroom/border/log';
import { isNarrowed, readLogFilter, whoInAddress, whoNames } from './logFilter';

const read = (query: string) => readLogFilter(new URLSearchParams(query));

test('an empty address asks for what the person did', () => {
  expect(read('')).toEqual({ ...wholeLog, who: 'you' });
  expect(isNarrowed(read(''))).toBe(false);
});

test.each(whoNames.map(([key]) => key))('whose entries: %s stands in the address as it was read', (key) => {
  expect(whoInAddress(read(`who=${key}`))).toBe(key);
});

test('an entry or a message that is led to is looked for among everybody’s', () => {
  expect(read('entry=7').who).toBe('all');
  expect(read('message=0')).toMatchObject({ who: 'all', message: 0 });
  expect(read('message=0&who=you').who).toBe('you');
  expect(read('by=rule:7')).toMatchObject({ who: 'all', decidedBy: 'rule:7' });
});

test('days are whole days of the person’s own time', () => {
  const { since, before } = read('since=2026-09-01&until=2026-09-01');
  expect(since).toBe(new Date(2026, 8, 1).getTime());
  expect(before).toBe(new Date(2026, 8, 2).getTime());
});

test.each(['since=yesterday', 'until=2026-13-45', 'what=nothing', 'message=-1', 'message=1.5', 'who=nobody'])(
  'what is no part of a filter is left out: %s',
  (query) => {
    expect(read(query)).toMatchObject({ what: null, since: null, before: null, message: null });
    expect(isNarrowed(read(query))).toBe(false);
  },
);

test.each(['what=moved', 'since=2026-09-01', 'until=2026-09-01', 'message=3', 'by=junk', 'words=rota'])(
  'narrowed: %s',
  (query) => {
    expect(isNarrowed(read(query))).toBe(true);
  },
);
