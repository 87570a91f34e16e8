import type { Finding } from '@/core/finding/finding';
import type { Push } from '@/core/geometry/size';
import { noSlot } from '@/core/model/slots';
import type { YuvMatrix } from '@/core/picture/planes';
import type { Store } from '../db';
import { setMoment, startEarlier } from './moments';
import { setPart } from './plan';
import { putOtherBeats } from './song';
import { makePlate, setTake } from './takes';

/** When what falls begins to, in seconds of its take, and over how many frames it crosses the frame. */
type FallArgs = { moment: string; slot: string; begins: number; frames: number };

/** Carries out what a finding offers. @param id of the project */
export async function applyFix(store: Store, id: string, fix: NonNullable<Finding['fix']>): Promise<void> {
  const take = () => (fix.args as { take: string }).take;
  switch (fix.command) {
    case 'steadyTake':
      await setTake(store, id, take(), 'Steady', { steady: true });
      return;
    case 'unsteadyTake':
      await setTake(store, id, take(), 'Leave as filmed', { steady: false });
      return;
    case 'matchTake':
      await setTake(store, id, take(), 'Match to the plate', { match: true });
      return;
    case 'unmatchTake':
      await setTake(store, id, take(), 'Leave as filmed', { match: false });
      return;
    case 'readColours': {
      const { matrix } = fix.args as { matrix: YuvMatrix };
      await setTake(store, id, take(), 'Read its colours so', { matrix });
      return;
    }
    case 'repeatMove':
      await setTake(store, id, take(), 'Its camera moves', { moves: true });
      return;
    case 'standStill':
      await setTake(store, id, take(), 'Its camera stands', { moves: false });
      return;
    case 'buildPlate':
      await makePlate(store, id, (fix.args as { setup: string | null }).setup);
      return;
    case 'leaveOut':
      await setTake(store, id, take(), 'Leave it out', { slot: noSlot });
      return;
    case 'startEarlier':
      await startEarlier(store, id, fix.args as Parameters<typeof startEarlier>[2]);
      return;
    case 'frameMoment': {
      const { moment, set } = fix.args as { moment: string; set: Partial<Push> };
      const fields = Object.entries(set).map(([side, value]) => [`framing.${side}`, value]);
      await setMoment(store, id, moment, 'Push the frame', Object.fromEntries(fields));
      return;
    }
    case 'fitMoment': {
      const { moment, set } = fix.args as { moment: string; set: Record<string, number> };
      const fields = Object.entries(set).map(([name, value]) => [`settings.${name}`, value]);
      await setMoment(store, id, moment, 'Make it fit', Object.fromEntries(fields));
      return;
    }
    case 'followFall': {
      const { moment, slot, begins, frames } = fix.args as FallArgs;
      const fields = { [`settings.falls.${slot}`]: begins, 'settings.frames': frames };
      await setMoment(store, id, moment, 'Follow what falls', fields);
      return;
    }
    case 'layOnSong': {
      const { moment, slot, at } = fix.args as { moment: string; slot: string; at: number };
      await setMoment(store, id, moment, 'Lay it on the song', { [`slots.${slot}.at`]: at });
      return;
    }
    case 'layInStep': {
      const { moment, slot, at } = fix.args as { moment: string; slot: string; at: number };
      await setMoment(store, id, moment, 'Lay it in step', { [`slots.${slot}.at`]: at });
      return;
    }
    case 'keepShadows':
    case 'hideShadows': {
      const shadows = fix.command === 'keepShadows' ? 'kept' : 'hidden';
      const { moment } = fix.args as { moment: string };
      await setMoment(store, id, moment, `Shadows are ${shadows}`, { 'settings.shadows': shadows });
      return;
    }
    case 'evenHeld':
    case 'leaveHeld': {
      const held = fix.command === 'evenHeld' ? 'evened' : 'left';
      const { moment } = fix.args as { moment: string };
      await setMoment(store, id, moment, `What is held is ${held}`, { 'look.held': held });
      return;
    }
    case 'setSetup': {
      const { setup, set } = fix.args as { setup: string; set: Record<string, unknown> };
      await setPart(store, id, setup, 'Set it so', set);
      return;
    }
    case 'askedStory':
      await setMoment(store, id, (fix.args as { moment: string }).moment, 'Not asked again', { asked: true });
      return;
    case 'readBeatsOtherwise':
      await putOtherBeats(store, id);
      return;
    case 'dropMedia': {
      const { media } = fix.args as { media: string };
      await store.transaction('rw', store.media, store.writes, store.originals, async () => {
        await store.removeRows('media', id, [media]);
        await store.originals.delete(media);
      });
    }
  }
}
