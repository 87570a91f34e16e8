import type { Reason } from '@/core/plan/order/reason';

/** Why a shot stands where it stands, in words. */
export function sayReason({ why, other }: Reason, names: Record<string, string>): string {
  const name = other ? (names[other] ?? 'another shot') : '';
  switch (why) {
    case 'plate first':
      return 'before anyone is in';
    case 'plate last':
      return 'measures drift';
    case 'needs':
      return `needs ${name} first`;
    case 'shared object':
      return `straight after ${name}: object untouched`;
    case 'one take':
      return `straight after ${name}: the camera runs on`;
    case 'back to front':
      return `in front of ${name}`;
    case 'performer first':
      return 'dressing moves after the performer';
    case 'cannot be undone':
      return 'cannot be undone: last';
    case 'locked':
      return name ? `locked after ${name}` : 'locked here';
    case 'opens the setup':
      return `opens ${name}`;
    case 'same clothes':
      return 'same clothes, no change';
    case 'same moment':
      return `the rest of ${name}`;
    case 'song order':
      return 'next in the song';
    case 'same setup':
      return 'while the setup stands';
    case 'window':
      return 'in its daylight';
    case 'listed':
      return 'as it is listed: the rules contradict';
  }
}
