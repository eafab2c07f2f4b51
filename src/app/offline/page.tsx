import { headers } from 'next/headers';
import { OfflineRuns } from '@/ui/frame/offline-runs';

export default async function Offline() {
  await headers();
  return <OfflineRuns />;
}
