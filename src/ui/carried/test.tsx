'use client';
import { TestNowRoom } from '@/ui/places/place-rooms';
import { TestNow } from '@/ui/places/test-now';
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
    <TestNowRoom role={who.role}>
      <TestNow {...facts} />
    </TestNowRoom>
  );
}
