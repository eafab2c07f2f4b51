'use client';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { WHY_TRIGGER, type WhyFacts } from './why';

/** The card itself: formula, inputs, source. Loaded after the page stands, so that the bench opens fast. */
export default function WhyCard({
  facts,
  children,
  className = '',
}: {
  facts: WhyFacts;
  children: ReactNode;
  className?: string;
}) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={`${WHY_TRIGGER} ${className}`}>
        {children}
        <span className="sr-only">, why?</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-h-[70dvh] w-[min(26rem,92vw)] overflow-auto border border-ink bg-panel p-4 text-base text-ink"
        >
          <h3 className="font-semibold">{facts.title}</h3>
          {facts.text && <p className="mt-2">{facts.text}</p>}
          {facts.formula && (
            <p className="figure-narrow mt-2 border-l-4 border-lake pl-3 text-sm leading-relaxed">
              {facts.formula}
            </p>
          )}
          {facts.inputs && facts.inputs.length > 0 && (
            <table className="mt-2 w-full text-sm">
              <tbody>
                {facts.inputs.map((i) => (
                  <tr key={i.name} className="border-t border-seam">
                    <th scope="row" className="py-1 pr-2 text-left font-normal text-quiet">
                      {i.name}
                    </th>
                    <td className="figure-narrow py-1 text-right whitespace-nowrap">{i.value}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <p className="mt-3 text-sm text-quiet">
            Source: {facts.source}. Check the edition in force where you work.
          </p>
          {facts.note && <p className="mt-1 text-sm text-quiet">Note: {facts.note}.</p>}
          <Popover.Close className="mt-3 min-h-11 border border-edge px-3 text-sm font-semibold hover:border-ink">
            Close
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
