import { Button } from './button';

/** One of a few answers, each a button; the one that stands is pressed. */
export function Choice<K extends string>({
  label,
  options,
  value,
  onChange,
  className = '',
}: {
  label: string;
  options: Readonly<Record<K, string>>;
  value: K | '';
  onChange: (key: K) => void;
  className?: string;
}) {
  return (
    <div
      role="group"
      aria-label={label}
      className={`grid gap-2 max-sm:grid-cols-2 sm:auto-cols-fr sm:grid-flow-col ${className}`}
    >
      {(Object.entries(options) as [K, string][]).map(([key, words]) => (
        <Button
          key={key}
          className="min-h-14"
          tone={key === value ? 'act' : 'plain'}
          aria-pressed={key === value}
          onClick={() => onChange(key)}
        >
          {words}
        </Button>
      ))}
    </div>
  );
}
