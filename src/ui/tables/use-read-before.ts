'use client';
import { useCallback, useState } from 'react';
import { office } from '@/device/office';

/**
 * How a file is read: as the person says, otherwise as a file of this shape was read the last time by anybody here, otherwise
 * by a guess (null). What is said meanwhile stands, whatever the office answers after it.
 * @param otherwise the person has said something else of it that makes an earlier reading idle
 */
export function useReadBefore<M>(route: string, otherwise = false) {
  const [mapping, setMapping] = useState<M | null>(null);
  const [remembered, setRemembered] = useState(false);
  const [answered, setAnswered] = useState(false);
  const own = mapping !== null || otherwise;
  /** Asks the office about a shape, as an effect does. */
  const ask = useCallback(
    (shape: string | undefined) => {
      if (!shape || own) return;
      let over = false;
      void office<{ mapping: M | null }>(`${route}?shape=${encodeURIComponent(shape)}`)
        .then(
          (a) => {
            if (over || !a.mapping) return;
            setMapping(a.mapping);
            setRemembered(true);
          },
          () => undefined, // without a signal the guess stands
        )
        .finally(() => {
          if (!over) setAnswered(true);
        });
      return () => void (over = true);
    },
    [route, own],
  );
  const begin = useCallback(() => {
    setMapping(null);
    setRemembered(false);
  }, []);
  return {
    mapping,
    setMapping,
    remembered,
    ask,
    /** It is read by a guess again. */ begin,
    /** Nothing more is to come: until then nothing is entered by a guess. */ known: answered || own,
  };
}
