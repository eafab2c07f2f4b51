import { protectionOf } from '@/core/plan/cautions';
import type { Plan } from '@/core/plan/plan';

/** What to wear and have at hand, task by task. */
export function Protection({ plan }: { plan: Plan }) {
  return (
    <table className="mt-3 w-full text-sm">
      <caption className="text-left text-quiet">Protection by task</caption>
      <tbody>
        {protectionOf(plan).map((t) => (
          <tr key={t.task} className="border-t border-seam">
            <th scope="row" className="py-1 pr-3 text-left font-normal">
              {t.task}
            </th>
            <td className="py-1">{t.items.join(', ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
