'use client';
import type { Procedure } from '@/core/pack/schema';
import { freshen } from '@/device/carried';
import { readIdentity } from '@/device/identity';
import { openRuns, openStore } from '@/device/store';
import { useCarrying } from '@/ui/carried/use-carrying';
import { buttonClass } from '@/ui/kit/button-class';
import { Reading, ShortReading } from '@/ui/rules/reading';
import type { Identity } from '@/wire/role';
import { useEffect, useState } from 'react';

/** A procedure as the house works by it, from what this device took along: whole, or in short to learn it. */
export function ProcedureTopic(props: { pack: string; procedure: string; stage: string | undefined }) {
  const [who] = useState(readIdentity);
  return who ? (
    <Here who={who} {...props} />
  ) : (
    <p>
      Procedures stand here as the house that you are signed in to works by them.{' '}
      <a className="text-lake underline" href="/sign-in">
        Sign in
      </a>
    </p>
  );
}
function Here({
  who,
  pack,
  procedure,
  stage,
}: {
  who: Identity;
  pack: string;
  procedure: string;
  stage: string | undefined;
}) {
  const carrying = useCarrying(who);
  const [short, setShort] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [ofRun, setOfRun] = useState<Procedure | null | undefined>(undefined);
  // a test of this device carries its own procedure, as it was planned
  useEffect(() => {
    void openStore(who)
      .then(openRuns)
      .then((runs) => {
        const run = runs.find((r) => r.plan.pack.id === pack && r.plan.procedure.id === procedure);
        setOfRun(run?.plan.procedure ?? null);
      })
      .catch(() => setOfRun(null));
  }, [who, pack, procedure]);
  const found =
    carrying?.packs.find((p) => p.id === pack)?.procedures.find((p) => p.id === procedure) ?? ofRun;
  const missing = carrying !== undefined && found === null;
  useEffect(() => {
    if (missing)
      void freshen(who, null, true).catch(() =>
        setTrouble(
          'This device has not taken the rules along yet, and there is no signal. Open it again where there is one.',
        ),
      );
  }, [missing, who]);
  useEffect(() => {
    if (found && stage) document.getElementById(`stage-${stage}`)?.scrollIntoView();
  }, [found, stage, short]);
  if (!found) return <p role="status">{trouble || 'Opening …'}</p>;
  return (
    <div className="grid gap-4">
      <p className="flex flex-wrap gap-3">
        <button
          type="button"
          className={buttonClass('plain')}
          aria-pressed={short}
          onClick={() => setShort(!short)}
        >
          {short ? 'The whole, for work' : 'In short, to learn it'}
        </button>
        <a className={buttonClass('plain')} href={`/rules/${pack}?procedure=${procedure}`}>
          Among the rules
        </a>
      </p>
      {short ? <ShortReading procedure={found} /> : <Reading procedure={found} />}
    </div>
  );
}
