'use client';
import { office, OfficeError } from '@/device/office';
import { PocketAlarms } from '@/ui/alarms/pocket-alarms';
import { Moment } from '@/ui/frame/zone';
import { Button } from '@/ui/kit/button';
import { TextField } from '@/ui/kit/field';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

interface Props {
  readonly sessions: readonly {
    readonly id: string;
    readonly device: string;
    readonly made: string;
    readonly used: string;
  }[];
  readonly passkeys: readonly {
    readonly id: string;
    readonly name: string;
    readonly made: string;
    readonly used: string | null;
  }[];
  /** The sign-in of this browser. */
  readonly here: string;
  /** Whose they are, where somebody else looks at them. */
  readonly name: string | null;
}
/** What a browser calls itself, as far as a person cares. */
function deviceWords(agent: string): string {
  const system = /iPhone|iPad|Android|Windows|Macintosh|CrOS|Linux/.exec(agent)?.[0];
  const browser = /Edg|OPR|Firefox|Chrome|Safari/.exec(agent)?.[0];
  const words = { Macintosh: 'Mac', CrOS: 'Chromebook', Edg: 'Edge', OPR: 'Opera' } as Record<string, string>;
  const [on, by] = [system, browser].map((w) => (w ? (words[w] ?? w) : ''));
  return [on || 'a device', by && `with ${by}`].filter(Boolean).join(' ');
}

/** Where somebody is signed in, and with which passkeys: what is not known is ended. */
export function DevicesView({ sessions, passkeys, here, name }: Props) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const end = async (path: string) => {
    setTrouble('');
    try {
      await office(path, { method: 'DELETE' });
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <>
      <h1 className="text-2xl font-bold">{name ? `Devices of ${name}` : 'Your devices'}</h1>
      <p role="alert" className="mt-1 text-rust">
        {trouble}
      </p>
      {!name && <PocketAlarms />}
      <div className="mt-6 grid gap-10 lg:grid-cols-2">
        <section aria-labelledby="open">
          <h2 id="open" className="text-lg font-semibold">
            Signed in
          </h2>
          <p className="text-sm text-quiet">
            A sign-in ends after 30 days, or after 14 days without use. Entries that are not with the office
            stay on their device until somebody signs in there.
          </p>
          <ul className="mt-2 border-t border-ink">
            {sessions.map((s) => (
              <li
                key={s.id}
                className="grid grid-cols-[1fr_auto] items-center gap-3 border-b border-seam py-2"
              >
                <span>
                  <span className="block font-semibold">{deviceWords(s.device)}</span>
                  <span className="block text-sm text-quiet">
                    since <Moment at={s.made} />, last used <Moment at={s.used} />
                  </span>
                </span>
                {s.id === here ? (
                  <span className="text-sm font-semibold text-moss">this one</span>
                ) : (
                  <Button className="min-h-11" onClick={() => void end(`/api/sessions/${s.id}`)}>
                    End it
                  </Button>
                )}
              </li>
            ))}
          </ul>
          {sessions.length === 0 && <p className="mt-2">Signed in nowhere.</p>}
        </section>
        <section aria-labelledby="passkeys">
          <h2 id="passkeys" className="text-lg font-semibold">
            Passkeys
          </h2>
          <p className="text-sm text-quiet">
            Signs in by finger, face or the device’s own lock, without the password. The key never leaves the
            device; nobody can be tricked into typing it.
          </p>
          <ul className="mt-2 border-t border-ink">
            {passkeys.map((k) => (
              <li
                key={k.id}
                className="grid grid-cols-[1fr_auto] items-center gap-3 border-b border-seam py-2"
              >
                <span>
                  <span className="block font-semibold">{k.name}</span>
                  <span className="block text-sm text-quiet">
                    made <Moment at={k.made} />
                    {k.used ? (
                      <>
                        , last used <Moment at={k.used} />
                      </>
                    ) : (
                      ', not used yet'
                    )}
                  </span>
                </span>
                <Button className="min-h-11" onClick={() => void end(`/api/passkeys/${k.id}`)}>
                  End it
                </Button>
              </li>
            ))}
          </ul>
          {passkeys.length === 0 && <p className="mt-2">None yet.</p>}
          {!name && <MakePasskey onMade={() => router.refresh()} />}
        </section>
      </div>
    </>
  );
}

function MakePasskey({ onMade }: { onMade: () => void }) {
  const [label, setLabel] = useState('');
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    setSaid('');
    try {
      const { startRegistration } = await import('@simplewebauthn/browser');
      type Options = Parameters<typeof startRegistration>[0]['optionsJSON'];
      const optionsJSON = await office<Options>('/api/passkeys/options', { method: 'POST' });
      const response = await startRegistration({ optionsJSON });
      await office('/api/passkeys', { body: { name: label.trim(), response } });
      setLabel('');
      onMade();
    } catch (error) {
      setSaid(
        error instanceof OfficeError
          ? error.message
          : 'The device made no passkey: it was cancelled, took too long, or there is one here already.',
      );
    }
    setBusy(false);
  };
  return (
    <div className="mt-4 grid gap-3 border border-seam bg-panel p-3">
      <TextField
        label="Make a passkey on this device"
        hint="what you call it"
        value={label}
        onChange={setLabel}
        maxLength={60}
        placeholder="work phone"
      />
      <Button tone="act" disabled={!label.trim() || busy} onClick={() => void make()}>
        {busy ? 'Ask the device …' : 'Make it'}
      </Button>
      <p role="alert" className="text-rust">
        {said}
      </p>
    </div>
  );
}
