/** Column types of our own. */
import type { System } from '@/core/installation/section';
import { networkOf, readInstallation } from '@/core/network/enter';
import { type Installation, installationOf } from '@/core/network/installation';
import { customType, timestamp } from 'drizzle-orm/pg-core';

export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** A place's installation: kept as its network and the facts of the whole, read as the section that rules know. */
export const installation = customType<{ data: System; driverData: unknown }>({
  dataType: () => 'jsonb',
  toDriver: (section) => JSON.stringify(installationOf(section, networkOf(section))),
  fromDriver: (kept) => readInstallation(kept as Installation | System),
});

export const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
