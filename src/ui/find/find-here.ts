import { findTopics, procedureTopics, TOPICS } from '@/core/guide';
import { wordsOf } from '@/core/guide/typed';
import { carrying } from '@/device/carried';
import type { Found } from '@/wire/find';
import type { Identity } from '@/wire/role';

const EACH = 5;
/** What this device knows without a signal: the places and gauges it took along, its rules, and the guide. */
export async function findHere(who: Identity, typed: string): Promise<readonly Found[]> {
  const words = wordsOf(typed);
  const says = (...text: (string | undefined)[]) => {
    const all = text.join(' ').toLowerCase();
    return words.every((w) => all.includes(w));
  };
  const known = await carrying(who).catch(() => null);
  const guide = (topics: Parameters<typeof findTopics>[0], kind: 'procedure' | 'topic') =>
    findTopics(topics, typed)
      .slice(0, EACH)
      .map((t): Found => ({ kind, title: t.title, about: t.about, href: `/guide#${t.id}` }));
  return [
    ...(known?.systems ?? [])
      .filter(({ site, system }) => says(site.name, site.address, site.customer, system.name))
      .slice(0, EACH)
      .map(({ site, system, id }): Found => ({
        kind: 'system',
        title: `${site.name}: ${system.name}`,
        about: site.address,
        href: `/places/${id}`,
      })),
    ...(known?.gauges ?? [])
      .filter((g) => says(g.name, g.serial))
      .slice(0, EACH)
      .map((g): Found => ({ kind: 'gauge', title: g.name, about: `serial ${g.serial}`, href: '/cabinet' })),
    ...guide(procedureTopics(known?.packs ?? []), 'procedure'),
    ...guide(TOPICS, 'topic'),
  ];
}
