import { now } from '@/server/now';
import { answer, open } from '@/server/handle';

export const dynamic = 'force-dynamic';
export const GET = open(async () => answer({ now: now() }));
