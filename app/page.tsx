'use client';
import { useEffect, useState } from 'react';
export default function Page() {
  const [s, set] = useState('wait');
  useEffect(() => {
    const w = new Worker(new URL('../src/workers/trial.worker.ts', import.meta.url), { type: 'module' });
    w.onmessage = (e) => set(String(e.data));
    w.postMessage(2);
  }, []);
  return <p id="x">{s}</p>;
}
