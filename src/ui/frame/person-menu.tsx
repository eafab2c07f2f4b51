'use client';
import { UserRound } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { OfficeError } from '@/device/office';
import type { Identity } from '@/wire/role';
import { Button } from '@/ui/kit/button';
import { Pop } from '@/ui/kit/pop';
import { chooseTheme, mirrored, setMirrored } from './settings';

const MORE = [
  { href: '/organisation', words: 'Organisation and people' },
  { href: '/usage', words: 'Units, days and times' },
  { href: '/devices', words: 'Your devices and passkeys' },
  { href: '/outbox', words: 'Outbox and printer (simulated)' },
  { href: '/check', words: 'Check a file' },
] as const;

/** Who is signed in; theme, hand and signing out. Signing out is refused while entries are not with the office. */
export function PersonMenu({ who }: { who: Identity }) {
  const [message, setMessage] = useState('');
  const [left, setLeft] = useState(false);
  const signOut = async (all: boolean) => {
    setMessage('');
    // what keeps and sends is fetched when somebody leaves: no page waits for it
    const away = await Promise.all([
      import('@/device/send-all'),
      import('@/device/office'),
      import('@/device/leave'),
    ]).catch(() => null);
    if (!away) return setMessage('There is no signal. Sign out where there is one.');
    const [{ waitsHere, waitingWords, sendAll }, { office }, { leaveDevice }] = away;
    const here = await waitsHere(who);
    const refused = here.errands.filter((e) => e.refused).map((e) => `${e.title}, refused`);
    const waits = [...refused, ...waitingWords(here)];
    if (waits.length) {
      void sendAll(who).catch(() => undefined);
      setMessage(
        `On this device and not with the office yet: ${waits.join('; ')}. Stay where there is a signal until it is sent, see to what the office refused, then sign out.`,
      );
      return;
    }
    try {
      await office(`/api/session${all ? '?all=1' : ''}`, { method: 'DELETE' });
    } catch (error) {
      if ((error as OfficeError).status !== 401) {
        setMessage((error as OfficeError).message);
        return;
      }
    }
    await leaveDevice(who).catch(() => undefined);
    location.assign('/sign-in');
  };
  return (
    <Pop
      side="right"
      className="flex min-h-16 w-full flex-col items-center justify-center gap-1 text-sm text-quiet hover:text-ink lg:min-h-[72px]"
      cardClass="w-72 p-4"
      onOpen={() => {
        setLeft(mirrored());
        setMessage('');
      }}
      trigger={
        <>
          <UserRound size={22} aria-hidden strokeWidth={1.75} />
          <span className="max-w-[68px] truncate">{who.name.split(' ')[0]}</span>
        </>
      }
    >
      {() => (
        <>
          <p className="font-semibold">{who.name}</p>
          <p className="text-sm text-quiet">
            {who.role}, {who.organisation}
          </p>
          <ul className="mt-2">
            {MORE.map(({ href, words }) => (
              <li key={href}>
                <Link
                  prefetch={false}
                  href={href}
                  className="block min-h-11 py-2 text-lake underline underline-offset-4"
                >
                  {words}
                </Link>
              </li>
            ))}
          </ul>
          <fieldset className="mt-3">
            <legend className="text-sm text-quiet">Theme</legend>
            <div className="mt-1 grid grid-cols-3 gap-2">
              <Button className="px-1 text-sm" onClick={() => chooseTheme('chalk')}>
                Chalk
              </Button>
              <Button className="px-1 text-sm" onClick={() => chooseTheme('basalt')}>
                Basalt
              </Button>
              <Button className="px-1 text-sm" onClick={() => chooseTheme(null)}>
                Device
              </Button>
            </div>
          </fieldset>
          <label className="mt-3 flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-5"
              checked={left}
              onChange={(e) => {
                setLeft(e.target.checked);
                setMirrored(e.target.checked);
              }}
            />
            Left-handed bench
          </label>
          <Button className="mt-2 w-full" onClick={() => void signOut(false)}>
            Sign out
          </Button>
          <Button className="mt-2 w-full text-sm" onClick={() => void signOut(true)}>
            Sign out everywhere
          </Button>
          <p role="alert" className="mt-2 text-rust">
            {message}
          </p>
        </>
      )}
    </Pop>
  );
}
