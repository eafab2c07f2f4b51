import { useEffect, useState } from 'react';
import type { Schema } from 'yup';

export const loadSchema = (): Promise<Schema> => import('@/wire/network-schema').then((m) => m.networkSchema);
/** What checks a drawing, once it is fetched: the drawing stands before it. */
export function useSchema(): Schema | null {
  const [schema, setSchema] = useState<Schema | null>(null);
  useEffect(() => {
    void loadSchema().then(
      (found) => setSchema(() => found),
      () => undefined,
    );
  }, []);
  return schema;
}
