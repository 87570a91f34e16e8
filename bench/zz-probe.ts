import { Rehearsal, tells } from '@/core/__tests__/rehearse';
import { faultKinds } from '@/core/practice/faults';
const t0=Date.now();
for (const fault of faultKinds) for (const role of ['left','right'] as const) for (const take of [0,1,2,3]) {
  const out=[]; 
  for (const at of [1.2,1.8,2.4]) { const r=new Rehearsal(take+1).take({fault,at,role,take}, 0.7, 0.25); out.push(r.codes.join('+')+'@'+r.after.toFixed(2)+(r.codes.some(c=>tells[fault].includes(c))?'':' MISSED')); }
  console.log(fault,role,take,out.join(' | '));
}
console.log((Date.now()-t0)/1000);
