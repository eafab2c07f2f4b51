import { found } from '@/app/(house)/found';
import { networkOf } from '@/core/network/enter';
import { partName } from '@/core/network/network';
import { faultsFor } from '@/core/yard/faults';
import { installationOf } from '@/core/yard/session';
import { rulePacks } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { scenarioNamed } from '@/server/yard/scenarios';
import { INSTALLATIONS, RUBRIC, SHIPPED } from '@/server/yard/shipped';
import { EditorRoom } from '@/ui/yard/editor/editor-room';
import { may } from '@/wire/role';
import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';

export const metadata: Metadata = { title: 'Change a scenario' };
export default async function ScenarioPage({ params }: { params: Promise<{ scenario: string }> }) {
  const session = await requireSession();
  if (!may(session.role, 'seal')) notFound();
  const { scenario: id } = await params;
  const [scenario, packs] = await Promise.all([found(scenarioNamed(session, id)), rulePacks(session)]);
  const procedure = packs
    .find((p) => p.id === scenario.pack)
    ?.procedures.find((p) => p.id === scenario.procedure);
  const system = installationOf(scenario, INSTALLATIONS, id);
  const network = networkOf(system);
  return (
    <>
      <p className="text-sm text-quiet">
        <Link prefetch={false} href="/yard/board" className="text-lake underline">
          Training
        </Link>
      </p>
      <h1 className="text-2xl font-bold">A scenario of your own</h1>
      <p className="max-w-prose text-quiet">
        Begun from “{scenario.title}”. It is brought in once its good conduct ends mastered and its mistakes
        are caught: trying it says what is missing.
      </p>
      <EditorRoom
        from={scenario}
        shipped={SHIPPED.some((s) => s.id === scenario.id)}
        knows={{
          stages: Object.entries(procedure?.stages ?? {}).map(([key, s]) => ({ id: key, title: s.title })),
          procedure: procedure?.title ?? scenario.procedure,
          faults: procedure ? faultsFor({ procedure, system }) : {},
          rubric: RUBRIC.map((c) => ({ id: c.id, title: c.text })),
          places: [
            ...network.parts.map((p) => ({ id: p.id, title: partName(p) })),
            ...network.links.flatMap((l) => (l.pipe ? [{ id: l.pipe.id, title: l.pipe.name }] : [])),
          ].filter((p) => p.title !== ''),
        }}
      />
    </>
  );
}
