'use client';
import {
  BookOpen,
  CalendarClock,
  Calculator,
  Ellipsis,
  Gauge,
  LifeBuoy,
  MapPin,
  Route,
  Scale,
  Search,
  Shovel,
} from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { Pop } from '@/ui/kit/pop';
import type { Identity } from '@/wire/role';
import { askFind, Find } from '@/ui/find/find';
import { PersonMenu } from './person-menu';

/** `often`: stands in the phone's bar; the others are a tap further, under More. */
const PLACES = [
  { href: '/today', word: 'Today', Icon: CalendarClock, often: true },
  { href: '/places', word: 'Places', Icon: MapPin, often: true },
  { href: '/plan', word: 'Plan', Icon: Route, often: true },
  { href: '/ledger', word: 'Ledger', Icon: BookOpen, often: false },
  { href: '/cabinet', word: 'Cabinet', Icon: Gauge, often: false },
  { href: '/rules', word: 'Rules', Icon: Scale, often: false },
  { href: '/yard', word: 'Yard', Icon: Shovel, often: false },
  { href: '/desk', word: 'Desk', Icon: Calculator, often: false },
  { href: '/guide', word: 'Guide', Icon: LifeBuoy, often: false },
] as const;

const item = (here: boolean) =>
  `flex min-h-16 flex-1 flex-col items-center justify-center gap-1 text-sm lg:min-h-[68px] lg:flex-none ${here ? 'border-t-4 border-lake font-bold text-ink lg:border-t-0 lg:border-l-4' : 'border-t-4 border-transparent text-quiet hover:text-ink lg:border-t-0 lg:border-l-4'}`;

/** The places of the product: a slim rail at the left on wide screens, a bar at the bottom on a phone. */
export function Rail({ who }: { who: Identity }) {
  const path = usePathname();
  const at = (href: string) => path === href || path.startsWith(`${href}/`);
  const rare = PLACES.filter((p) => !p.often);
  return (
    <nav
      aria-label="Places in the product"
      className="no-print fixed inset-x-0 bottom-0 z-40 flex border-t border-seam bg-panel pb-[env(safe-area-inset-bottom)] lg:inset-y-0 lg:right-auto lg:w-[72px] lg:flex-col lg:overflow-y-auto lg:border-t-0 lg:border-r lg:pb-0"
    >
      <button
        type="button"
        onClick={askFind}
        className={`${item(false)} max-lg:hidden`}
        aria-label="Find anything"
        aria-keyshortcuts="Control+K"
      >
        <Search size={22} aria-hidden strokeWidth={1.75} />
        Find
      </button>
      {PLACES.map(({ href, word, Icon, often }) => (
        <Link
          key={href}
          href={href}
          prefetch={false}
          aria-current={at(href) ? 'page' : undefined}
          className={`${item(at(href))} ${often ? '' : 'max-lg:hidden'}`}
        >
          <Icon size={22} aria-hidden strokeWidth={1.75} />
          {word}
        </Link>
      ))}
      <Pop
        side="top"
        className={`${item(rare.some((p) => at(p.href)))} lg:hidden`}
        cardClass="grid w-64"
        trigger={
          <>
            <Ellipsis size={22} aria-hidden strokeWidth={1.75} />
            More
          </>
        }
      >
        {(close) => (
          <>
            <button
              type="button"
              className="flex min-h-16 items-center gap-4 px-4 text-left"
              onClick={() => {
                close();
                askFind();
              }}
            >
              <Search size={22} aria-hidden strokeWidth={1.75} />
              Find anything
            </button>
            {rare.map(({ href, word, Icon }) => (
              <Link
                key={href}
                href={href}
                prefetch={false}
                aria-current={at(href) ? 'page' : undefined}
                onClick={close}
                className="flex min-h-16 items-center gap-4 border-t border-seam px-4 first:border-t-0"
              >
                <Icon size={22} aria-hidden strokeWidth={1.75} />
                {word}
              </Link>
            ))}
          </>
        )}
      </Pop>
      <div className="flex flex-1 lg:mt-auto lg:flex-none">
        <PersonMenu who={who} />
      </div>
      <Find who={who} />
    </nav>
  );
}
