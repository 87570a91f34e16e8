import { BenchRoot } from '@/stations/bench';

export default function Page() {
  return <BenchRoot />;
}
