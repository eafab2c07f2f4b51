export { postReadings as POST } from '@/server/gauge/door';
