import type { CSSProperties } from 'react';

/** The colour of the running stitch below something that can be changed where it stands. */
export const dyed = (dye: string | undefined) => (dye ? ({ '--dye': dye } as CSSProperties) : undefined);
