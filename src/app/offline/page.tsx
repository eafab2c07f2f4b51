import { headers } from 'next/headers';
import { CarriedHouse } from '@/ui/carried/house';

/** Stands under every address while there is no signal (public/sw.js). */
export default async function Offline() {
  await headers();
  return <CarriedHouse />;
}
