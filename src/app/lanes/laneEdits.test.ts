import { emptySetup } from '../../core/line/setup';
import { edited } from '../../core/line/setupEdit';
import { laneTrouble, lanesOf, type Lane } from '../../core/search/lane';
import { senderKinds } from '../../core/senders/kind';
import { laneMoved, ownLane, ownLanes } from './laneEdits';

const lane = (id: string, of = '/inbox'): Lane => ({ id, of, name: id, what: { by: 'query', query: 'unseen' } });
const after = (lanes: Lane[], edits: ReturnType<typeof laneMoved>) => {
  const done = edited({ ...emptySetup, lanes }, edits);
  if (!done.ok) throw new Error(done.error);
  return lanesOf(done.setup.lanes, '/inbox').map(({ id }) => id);
};

test('lanes are moved among those of their view, whatever stands between them', () => {
  const lanes = [lane('a'), lane('x', '/archive'), lane('b'), lane('c')];
  expect(after(lanes, laneMoved(lanes, '/inbox', 'c', -1))).toEqual(['a', 'c', 'b']);
  expect(after(lanes, laneMoved(lanes, '/inbox', 'a', 1))).toEqual(['b', 'a', 'c']);
});

test('the ready lanes become the person’s own with the first change, and keep their order but for it', () => {
  const [first, second, ...others] = lanesOf([], '/inbox').map(ownLane);
  const edits = [...ownLanes([], '/inbox'), ...laneMoved([], '/inbox', first.id, 1)];
  expect(after([], edits)).toEqual([second, first, ...others].map(({ id }) => id));
  expect(ownLanes([lane('a')], '/inbox')).toEqual([]);
  expect(ownLanes([], '/inbox')).toHaveLength(senderKinds.length);
});

test.each<[Partial<Lane>, RegExp]>([
  [{ name: ' ' }, /a name/],
  [{ what: { by: 'query', query: 'from' } }, /at character \d/],
  [{ what: { by: 'label', label: '' } }, /a label/],
  [{ what: { by: 'search', search: '' } }, /a saved search/],
])('a lane that lacks something says what: %j', (part, says) => {
  expect(laneTrouble({ ...lane('a'), ...part })).toMatch(says);
});

test('a whole lane is taken', () => {
  expect(laneTrouble(lane('a'))).toBeNull();
});
