'use client';
import { Button } from '@/ui/kit/button';
import './globals.css';

/** The last resort, where not even the frame of a page could be drawn. Nothing inline: the security policy holds here too. */
export default function GlobalError({ reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main className="mx-auto grid max-w-2xl gap-4 p-6">
          <h1 className="text-2xl font-bold">This page could not be shown</h1>
          <p>
            What was saved is kept: readings on this device, records with the office. If a hold is running,
            read the gauge at its time and note figure and time; both can be entered afterwards.
          </p>
          <div className="flex flex-wrap gap-3">
            <Button tone="act" className="min-h-14" onClick={reset}>
              Try again
            </Button>
            <a
              className="inline-flex min-h-14 items-center border border-edge bg-panel px-4 font-semibold"
              href="/today"
            >
              Today
            </a>
          </div>
        </main>
      </body>
    </html>
  );
}
