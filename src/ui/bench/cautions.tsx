import { useState } from 'react';

/** Cautions that this person has read on this page, so that they fold to one line where they stand again. */
const read = new Set<string>();
/** Cautions stand before the step, in words; once read they fold to one line that opens again. */
export function Cautions({
  keys,
  texts,
}: {
  keys: readonly string[];
  texts: Readonly<Record<string, string>>;
}) {
  const all = keys.join(' ');
  const [open, setOpen] = useState(() => !keys.every((k) => read.has(k)));
  if (!keys.length) return null;
  const fold = () => {
    for (const k of keys) read.add(k);
    setOpen(!open);
  };
  return (
    <div
      className={`flex min-w-0 gap-3 border-l-4 border-ochre pl-3 ${open ? 'items-start' : 'items-center'}`}
      key={all}
    >
      {open ? (
        <ul className="grid min-w-0 flex-1 gap-1 text-base leading-snug" aria-label="Cautions">
          {keys.map((k) => (
            <li key={k}>{texts[k]}</li>
          ))}
        </ul>
      ) : (
        <p className="min-w-0 flex-1 truncate text-base">{keys.map((k) => texts[k]).join(' ')}</p>
      )}
      <button
        type="button"
        // folded it is one line high, and pressed a little beyond it
        className={`min-h-11 shrink-0 px-2 font-semibold text-lake underline-offset-4 hover:underline ${open ? '' : '-my-2'}`}
        aria-expanded={open}
        onClick={fold}
      >
        {open ? 'Read' : 'Cautions'}
      </button>
    </div>
  );
}
