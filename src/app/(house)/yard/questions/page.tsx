import { QUESTIONS } from '@/core/yard/questions/question';
import { scoreOf } from '@/core/yard/progress';
import { requireSession } from '@/server/session/session';
import { resultsOf } from '@/server/yard/scenarios';
import { QuestionsView } from '@/ui/yard/questions';
import { YardHead } from '@/ui/yard/yard-head';
import { may } from '@/wire/role';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Questions' };
export default async function QuestionsPage() {
  const session = await requireSession();
  const results = await resultsOf(session, session.person);
  return (
    <>
      <YardHead at="questions" role={session.role}>
        Tests that were conducted, on simulated installations and by this house, without names and without
        their end. The first answer counts.
      </YardHead>
      {may(session.role, 'run') ? (
        <QuestionsView
          scores={Object.fromEntries(Object.keys(QUESTIONS).map((about) => [about, scoreOf(results, about)]))}
        />
      ) : (
        <p className="mt-3">Whoever conducts tests is asked here: testers, apprentices, the owner.</p>
      )}
    </>
  );
}
