import { postReadings } from '@/server/gauge/door';

export const POST = postReadings;
