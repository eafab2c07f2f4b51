import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { hasOrganisation } from '@/server/people/organisation';
import { SignInForm } from '@/ui/sign-in/form';
import { demoPeople } from '@/server/session/demo';

export const metadata: Metadata = { title: 'Sign in' };
export default async function SignIn() {
  await headers();
  if (!(await hasOrganisation().catch(() => true))) redirect('/begin');
  return (
    <main className="mx-auto grid min-h-dvh max-w-5xl items-center gap-10 px-5 py-10 lg:grid-cols-[1fr_24rem]">
      <section>
        <svg width="220" height="150" viewBox="0 0 220 150" aria-hidden>
          {[
            [20, 124, 168, 20],
            [24, 100, 160, 20],
            [30, 82, 160, 14],
            [30, 58, 160, 20],
            [22, 34, 164, 20],
          ].map(([x, y, w, h]) => (
            <rect key={y} x={x} y={y} width={w} height={h} fill="var(--block)" stroke="var(--edge)" />
          ))}
          <rect
            x="34"
            y="8"
            width="150"
            height="22"
            fill="var(--panel)"
            stroke="var(--moss)"
            strokeWidth="2"
          />
          <text
            x="109"
            y="19"
            textAnchor="middle"
            dominantBaseline="central"
            fontSize="14"
            fontWeight="700"
            fill="var(--moss)"
          >
            Tight
          </text>
          <line x1="0" x2="220" y1="146" y2="146" stroke="var(--ink)" strokeWidth="2" />
        </svg>
        <h1 className="mt-6 text-4xl font-bold">Vast Stone</h1>
        <p className="mt-2 max-w-md text-lg">
          A test bench for tightness work. It leads the test with clock and limits, gives the verdict with its
          reason, and seals the record.
        </p>
        <p className="mt-4 max-w-md text-sm text-quiet">
          Local code, the maker’s instructions and a licensed person decide. Figures are defaults to be
          checked against the edition in force.
        </p>
      </section>
      <SignInForm demo={await demoPeople()} />
    </main>
  );
}
