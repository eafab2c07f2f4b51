/** What pages of places show alike, whether the office or the device has it. */
import type { System } from '@/core/installation/section';
import { networkOf } from '@/core/network/enter';
import { reachOf } from '@/core/network/flood';
import { unanswered } from '@/core/network/installation';
import { tradeOf } from '@/core/trades';
import { may, type Role } from '@/wire/role';
import type { ReactNode } from 'react';

/** What is wrong in an installation as it is drawn, and what nobody has said of it yet. */
export function StillOpen({ facts }: { facts: System }) {
  const network = networkOf(facts);
  const wrong = tradeOf(facts).parted ? [] : reachOf(network).warnings;
  return [...wrong, ...unanswered(network)].map((w) => (
    <p key={w} className="mt-2 border-l-4 border-ochre pl-3">
      {w}
    </p>
  ));
}
/** Around what can be begun on what stands before a person, for those who may. */
export const TestNowRoom = ({ role, children }: { role: Role; children: ReactNode }) => (
  <>
    <h1 className="text-2xl font-bold">What stands before you?</h1>
    {mayTestNew(role) ? (
      children
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
/** Enters what stands there, and tests it. */
export const mayTestNew = (role: Role): boolean => may(role, 'plan') && may(role, 'run');
