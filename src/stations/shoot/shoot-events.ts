/** What keys ask of the board: the list of actions sends these, the screen that is open carries them out. */
export const shootEvent = 'fickle-ribbon:shoot';
type ShootWish = 'take' | 'good' | 'maybe' | 'no';

export const wishOf = (event: Event): ShootWish => (event as CustomEvent<ShootWish>).detail;
export const ask = (wish: ShootWish): void => {
  window.dispatchEvent(new CustomEvent<ShootWish>(shootEvent, { detail: wish }));
};
