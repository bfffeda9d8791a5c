import type { Order, View } from '../../mailroom/border/views';
import { prefer, usePreferences } from '../state/preferences';

/** The orders in which a list can be, each in both directions, in the words of the menu. */
const orderNames: Record<Order['by'], [string, string]> = {
  date: ['Newest first', 'Oldest first'],
  sender: ['Sender, A first', 'Sender, Z first'],
  subject: ['Subject, A first', 'Subject, Z first'],
  size: ['Largest first', 'Smallest first'],
  score: ['Highest score first', 'Lowest score first'],
};

const valueOf = ({ by, turned }: Order): string => `${by}${turned ? ' turned' : ''}`;

const choices = (Object.keys(orderNames) as Order['by'][]).flatMap((by) =>
  orderNames[by].map((name, at) => ({ order: { by, turned: at === 1 }, name })),
);

/** The order of the rows here; kept for this place alone. */
export function OrderMenu({ path, view }: { path: string; view: View }) {
  const orders = usePreferences((s) => s.orders);
  const order = orders[path] ?? { by: 'date', turned: false };
  // Only what is in Junk shows a score.
  const scored = view.kind === 'place' && view.place === 'junk';
  const choose = (value: string) => {
    const chosen = choices.find((choice) => valueOf(choice.order) === value)?.order;
    const usual = !chosen || (chosen.by === 'date' && !chosen.turned);
    const others = Object.entries(orders).filter(([other]) => other !== path);
    prefer({ orders: Object.fromEntries(usual ? others : [...others, [path, chosen]]) });
  };
  return (
    <select
      className="select w-36 select-sm max-md:w-32"
      aria-label="Order"
      value={valueOf(order)}
      onChange={(event) => choose(event.target.value)}
    >
      {choices
        .filter(({ order: { by } }) => scored || by !== 'score')
        .map((choice) => (
          <option key={choice.name} value={valueOf(choice.order)}>
            {choice.name}
          </option>
        ))}
    </select>
  );
}
