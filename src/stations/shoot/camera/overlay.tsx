'use client';
import { useEffect, useRef } from 'react';
import type { RgbaImage } from '@/core/picture/image';

export const overlayModes = ['nothing', 'onion skin', 'difference', 'split'] as const;
export type OverlayMode = (typeof overlayModes)[number];

/** An earlier picture over the live one: half seen through, as the difference, or on the left half. */
export function Overlay({ picture, mode }: { picture: RgbaImage | Blob | null; mode: OverlayMode }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let here = true;
    const draw = async () => {
      if (!picture) return;
      const bitmap = await createImageBitmap(
        picture instanceof Blob
          ? picture
          : new ImageData(picture.data as Uint8ClampedArray<ArrayBuffer>, picture.width, picture.height),
      );
      const target = canvas.current;
      if (here && target) {
        [target.width, target.height] = [bitmap.width, bitmap.height];
        target.getContext('2d')?.drawImage(bitmap, 0, 0);
      }
      bitmap.close();
    };
    void draw().catch(() => undefined);
    return () => {
      here = false;
    };
  }, [picture, mode]);
  if (mode === 'nothing' || !picture) return null;
  const style = {
    'onion skin': { opacity: 0.5 },
    difference: { mixBlendMode: 'difference' as const },
    split: { clipPath: 'inset(0 50% 0 0)' },
  }[mode];
  return (
    <canvas
      ref={canvas}
      className="absolute inset-0 h-full w-full"
      style={style}
      role="img"
      aria-label={`Earlier picture, ${mode}`}
      data-overlay={mode}
    />
  );
}
