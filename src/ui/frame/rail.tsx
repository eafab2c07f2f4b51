'use client';
import { BookOpen, CalendarClock, MapPin, Scale } from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import type { Identity } from '@/wire/role';
import { PersonMenu } from './person-menu';

const PLACES = [
  { href: '/today', word: 'Today', Icon: CalendarClock },
  { href: '/places', word: 'Places', Icon: MapPin },
  { href: '/ledger', word: 'Ledger', Icon: BookOpen },
  { href: '/rules', word: 'Rules', Icon: Scale },
] as const;

/** The places of the product: a slim rail at the left on wide screens, a bar at the bottom on a phone. */
export function Rail({ who }: { who: Identity }) {
  const path = usePathname();
  return (
    <nav
      aria-label="Places in the product"
      className="no-print fixed inset-x-0 bottom-0 z-40 flex border-t border-seam bg-panel pb-[env(safe-area-inset-bottom)] lg:inset-y-0 lg:right-auto lg:w-[72px] lg:flex-col lg:border-t-0 lg:border-r lg:pb-0"
    >
      {PLACES.map(({ href, word, Icon }) => {
        const here = path === href || path.startsWith(`${href}/`);
        return (
          <Link
            key={href}
            href={href}
            prefetch={false}
            aria-current={here ? 'page' : undefined}
            className={`flex min-h-16 flex-1 flex-col items-center justify-center gap-1 text-sm lg:flex-none lg:min-h-[72px] ${here ? 'font-bold text-ink border-t-4 border-lake lg:border-t-0 lg:border-l-4' : 'text-quiet border-t-4 border-transparent hover:text-ink lg:border-t-0 lg:border-l-4'}`}
          >
            <Icon size={22} aria-hidden strokeWidth={1.75} />
            {word}
          </Link>
        );
      })}
      <div className="flex flex-1 lg:mt-auto lg:flex-none">
        <PersonMenu who={who} />
      </div>
    </nav>
  );
}
