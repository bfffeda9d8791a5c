// How the lanes of a view are changed: the ready ones become the person's own with the first change.
import type { SetupEdit } from '../../core/line/setupEdit';
import { lanesOf, type Lane } from '../../core/search/lane';

/** A ready lane as the person's own: the ready ones are of every view, so its view becomes a part of its id. */
export const ownLane = (lane: Lane): Lane => ({ ...lane, id: `${lane.of} ${lane.id}` });

/** What the lanes of a view will be once something of them is changed, each the person's own. */
function future(lanes: readonly Lane[], of: string): Lane[] {
  return lanes.some((lane) => lane.of === of) ? lanesOf(lanes, of) : lanesOf(lanes, of).map(ownLane);
}

/** The edits that make the ready lanes of a view the person's own; none where it has lanes of its own. */
export function ownLanes(lanes: readonly Lane[], of: string): SetupEdit[] {
  if (lanes.some((lane) => lane.of === of)) return [];
  return future(lanes, of).map((item) => ({ list: 'lanes', id: item.id, item }));
}

/** The edits that move a lane, by the id that it has as the person's own, so many places to the right. */
export function laneMoved(lanes: readonly Lane[], of: string, id: string, by: number): SetupEdit[] {
  const order = future(lanes, of);
  const at = order.findIndex((lane) => lane.id === id);
  const [moved] = order.splice(at, 1);
  order.splice(at + by, 0, moved);
  // Each is put at the end in turn, so that they stand in the new order, whatever stands between them.
  const end = lanes.length + order.length;
  return order.map((item) => ({ list: 'lanes', id: item.id, item, at: end }));
}
