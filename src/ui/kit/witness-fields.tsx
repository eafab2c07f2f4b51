import { SAW_WORDS } from '@/core/record/signatures';
import { Button } from './button';

/** In what office a witness stands here, and how much was seen. */
export function WitnessFields({
  office,
  question,
  as,
  onAs,
  saw,
  onSaw,
}: {
  office: string;
  question: string;
  as: string;
  onAs: (as: string) => void;
  saw: 'whole' | 'end';
  onSaw: (saw: 'whole' | 'end') => void;
}) {
  return (
    <>
      <label>
        {office}
        <input
          className="mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg"
          value={as}
          onChange={(e) => onAs(e.target.value)}
          maxLength={80}
          placeholder="inspector, site manager"
        />
      </label>
      <div role="group" aria-label={question} className="grid max-w-xl grid-cols-2 gap-3">
        {(['end', 'whole'] as const).map((s) => (
          <Button
            key={s}
            className="min-h-14"
            tone={saw === s ? 'act' : 'plain'}
            aria-pressed={saw === s}
            onClick={() => onSaw(s)}
          >
            {SAW_WORDS[s].replace('saw ', '')}
          </Button>
        ))}
      </div>
    </>
  );
}
