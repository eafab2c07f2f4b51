'use client';
import type { BesideOffer } from '@/core/plan/beside-offer';
import type { Offer } from '@/core/plan/offer';
import { Button } from '@/ui/kit/button';
import type { Section } from '@/core/trades/sections';
import { PARTED_WORDS, type Parted } from '@/core/trades/trade';

const field = 'mt-1 block min-h-11 w-full border border-edge bg-panel px-2 text-base';
export const keyOf = (o: Offer) => `${o.pack}/${o.id}`;

/** What a test proves, in which order its parts come, and what keeps it from a good end here. */
export const AboutTest = ({ procedure }: { procedure: Offer }) => (
  <>
    <details className="mt-2 text-sm">
      <summary className="min-h-8 cursor-pointer text-lake">What it proves, what it cannot</summary>
      <p className="mt-1">Proves {procedure.proves.join('; ')}.</p>
      <p className="mt-1">Cannot prove {procedure.cannotProve.join('; ')}.</p>
    </details>
    {procedure.parts.length > 0 && (
      <p className="mt-2 text-sm">
        In this order, each with its own result: {procedure.parts.join(', then ')}.
      </p>
    )}
    {procedure.after && (
      <p className="mt-2 border-l-4 border-ochre pl-3 text-sm">
        Only after the pipework has passed on this system; without that record it does not start.
      </p>
    )}
    {procedure.outside.length > 0 && (
      <p className="mt-2 border-l-4 border-heather pl-3 text-sm">
        {procedure.outside.join(' ')} The run can only end Refer, Not tight or without a result.
      </p>
    )}
  </>
);
export function WhichTest({
  offers,
  chosen,
  onChoose,
}: {
  offers: readonly Offer[];
  chosen: string;
  onChoose: (o: Offer) => void;
}) {
  const own = offers.filter((o) => !o.aside);
  const others = offers.filter((o) => o.aside);
  const line = (o: Offer) => (
    <label
      key={keyOf(o)}
      className="flex min-h-12 cursor-pointer items-start gap-3 border-t border-seam py-2"
    >
      <input
        type="radio"
        name="procedure"
        className="mt-1 size-5 shrink-0 accent-lake"
        checked={chosen === keyOf(o)}
        onChange={() => onChoose(o)}
      />
      <span>
        {o.title}
        <span className="block text-sm text-quiet">{o.summary}</span>
        <span className="block text-sm text-quiet">
          {o.school}
          {o.house && <strong className="text-ink">, house pack: {o.house}</strong>}
        </span>
      </span>
    </label>
  );
  return (
    <fieldset className="mt-2">
      <legend className="text-sm text-quiet">Which test?</legend>
      {own.map(line)}
      {others.length > 0 && (
        <details className="border-t border-seam" open={own.length === 0}>
          <summary className="min-h-11 cursor-pointer py-2 text-sm text-lake underline">
            {others.length} of schools your house does not work to
          </summary>
          <SetAside of={others} />
          {others.map(line)}
        </details>
      )}
    </fieldset>
  );
}
/** Why tests are folded away, and where that is changed. */
export const SetAside = ({ of }: { of: readonly Offer[] }) => (
  <p className="py-1 text-sm text-quiet">
    {[...new Set(of.map((o) => o.school))].join('; ')}: set aside under{' '}
    <a className="text-lake underline" href="/rules">
      Rules
    </a>
    , where the owner can take {of.length === 1 ? 'it' : 'them'} up again.
  </p>
);
export function WhichCase({
  procedure,
  kind,
  onChoose,
}: {
  procedure: Offer;
  kind: string;
  onChoose: (key: string) => void;
}) {
  return (
    <fieldset className="mt-3">
      <legend className="text-sm text-quiet">What is being tested?</legend>
      {procedure.cases.map((c) => (
        <label
          key={c.key}
          className="flex min-h-12 cursor-pointer items-start gap-3 border-t border-seam py-2"
        >
          <input
            type="radio"
            name="case"
            className="mt-1 size-5 shrink-0 accent-lake"
            checked={kind === c.key}
            onChange={() => onChoose(c.key)}
          />
          <span>
            {c.title}
            <span className="block text-sm text-quiet">{c.hint}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

export interface Attendance {
  readonly permit: string;
  readonly doneBy: '' | 'licensed' | 'owner';
  readonly present: string;
}
export const nobody: Attendance = { permit: '', doneBy: '', present: '' };
export const attendanceOf = ({ permit, doneBy, present }: Attendance) => ({
  ...(permit.trim() ? { permit: permit.trim() } : {}),
  ...(doneBy ? { doneBy } : {}),
  ...(present.trim() ? { present: present.trim() } : {}),
});
/** Permit, who does the work, who must be there. */
export function WhoIsThere({ said, onSay }: { said: Attendance; onSay: (said: Attendance) => void }) {
  const { permit, doneBy, present } = said;
  return (
    <details className="mt-3 text-sm">
      <summary className="min-h-8 cursor-pointer text-lake">Permit, and who must be present</summary>
      <label className="mt-2 block">
        Permit number
        <input
          className={field}
          value={permit}
          onChange={(e) => onSay({ ...said, permit: e.target.value })}
          maxLength={60}
        />
      </label>
      <label className="mt-2 block">
        The work is done by
        <select
          className={field}
          value={doneBy}
          onChange={(e) => onSay({ ...said, doneBy: e.target.value as typeof doneBy })}
        >
          <option value="">not said</option>
          <option value="licensed">a licensed person</option>
          <option value="owner">the owner, under the permit</option>
        </select>
      </label>
      <label className="mt-2 block">
        Who is present: installer, customer, inspector, utility, engineer
        <input
          className={field}
          value={present}
          onChange={(e) => onSay({ ...said, present: e.target.value })}
          maxLength={200}
        />
      </label>
    </details>
  );
}
/** Another test that may run at the same time here. */
export function AtTheSameTime({
  pairs,
  pair,
  otherCase,
  onWith,
  onCase,
}: {
  pairs: readonly BesideOffer[];
  pair: BesideOffer | undefined;
  otherCase: string;
  onWith: (system: string) => void;
  onCase: (key: string) => void;
}) {
  return (
    <fieldset className="mt-3 border-l-4 border-lake pl-3">
      <legend className="text-sm text-quiet">{pairs[0]!.title}</legend>
      <p className="text-sm">{pairs[0]!.summary}</p>
      <label className="mt-2 block text-sm">
        At the same time
        <select
          className={field}
          value={pair?.other.system.id ?? ''}
          onChange={(e) => onWith(e.target.value)}
        >
          <option value="">this test alone</option>
          {pairs.map((b) => (
            <option key={b.other.system.id} value={b.other.system.id}>
              {b.other.system.name}: {b.other.title}
            </option>
          ))}
        </select>
      </label>
      {pair && (
        <label className="mt-2 block text-sm">
          What is tested there
          <select className={field} value={otherCase} onChange={(e) => onCase(e.target.value)}>
            <option value="">Choose</option>
            {pair.other.cases.map((c) => (
              <option key={c.key} value={c.key}>
                {c.title}
              </option>
            ))}
          </select>
        </label>
      )}
    </fieldset>
  );
}
/** Which of the place's sections the test is for; one that is not known to its end says why it cannot be. */
export function WhichSection({
  parted,
  sections,
  section,
  onChoose,
}: {
  parted: Parted;
  sections: readonly Section[];
  section: string;
  onChoose: (key: string) => void;
}) {
  return (
    <fieldset className="mt-3">
      <legend className="font-semibold">{PARTED_WORDS[parted].which}</legend>
      {sections.length === 0 && <p className="border-l-4 border-ochre pl-3">{PARTED_WORDS[parted].none}</p>}
      <div className="mt-1 grid gap-2">
        {sections.map((s) => (
          <Button
            key={s.key}
            className="min-h-14 justify-start text-left"
            tone={s.key === section ? 'act' : 'plain'}
            aria-pressed={s.key === section}
            disabled={s.open !== ''}
            onClick={() => onChoose(s.key)}
          >
            <span>
              <span className="block">{s.title}</span>
              {s.open && <span className="block text-sm font-normal">{s.open}</span>}
            </span>
          </Button>
        ))}
      </div>
    </fieldset>
  );
}
