'use client';
import { TestNow } from '@/ui/places/test-now';
import { may } from '@/wire/role';
import { testNow } from '@/wire/test-now';
import { useMemo } from 'react';
import type { RoomProps } from './rooms';

/** A test on what stands before a person, from what this device took along. */
export function TestHere({ who, carrying }: RoomProps) {
  const { house, packs, gauges } = carrying;
  const facts = useMemo(
    () => testNow(packs, new Set(house.aside), gauges, house.meters),
    [packs, house, gauges],
  );
  return (
    <>
      <h1 className="text-2xl font-bold">What stands before you?</h1>
      {may(who.role, 'plan') && may(who.role, 'run') ? (
        <TestNow {...facts} />
      ) : (
        <p className="mt-3">
          A new place is entered by a tester or the office; after that everybody tests there.{' '}
          <a className="text-lake underline" href="/places">
            Places
          </a>
        </p>
      )}
    </>
  );
}
