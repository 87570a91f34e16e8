import { Opening } from '@/stations/opening';

export default function Page() {
  return <Opening />;
}
