'use client';
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { TransformComponent, TransformWrapper, useControls } from 'react-zoom-pan-pinch';
import { IconButton } from '../icon-button';

const still = { disabled: true };

/**
 * Lets a picture be looked at closely, with everything that lies over it: by pinching, by turning the wheel with
 * Ctrl, or with its knobs. What is closer than the whole is moved by dragging beside what can be dragged itself.
 * @param held class of what takes a drag itself
 */
export function Closer({ held, children }: { held: string; children: ReactNode }) {
  const [scale, setScale] = useState(1);
  return (
    <TransformWrapper
      maxScale={12}
      wheel={{ activationKeys: (keys) => keys.includes('Control') || keys.includes('Meta') }}
      panning={{ disabled: scale <= 1, velocityDisabled: true, excluded: [held] }}
      pinch={{ excluded: [held] }}
      doubleClick={still}
      zoomAnimation={still}
      autoAlignment={still}
      onTransform={(_, state) => setScale(state.scale)}
    >
      <TransformComponent
        wrapperStyle={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
        contentStyle={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
      >
        {children}
      </TransformComponent>
      <Knobs scale={scale} />
    </TransformWrapper>
  );
}

function Knobs({ scale }: { scale: number }) {
  const { zoomIn, zoomOut, resetTransform } = useControls();
  const all = [
    { text: 'Closer', icon: ZoomIn, run: () => zoomIn(0.6, 0), dead: scale >= 12 },
    { text: 'Further', icon: ZoomOut, run: () => zoomOut(0.6, 0), dead: scale <= 1 },
    { text: 'The whole picture', icon: Maximize2, run: () => resetTransform(0), dead: scale === 1 },
  ];
  return (
    <div className="absolute right-2 bottom-2 flex bg-raised/85" role="group" aria-label="How close">
      {all.map(({ text, icon, run, dead }, index) => (
        // On a phone the picture is small: what can do nothing yet does not lie over it.
        <span key={text} className={index > 0 && scale <= 1 ? 'phone:hidden' : ''}>
          <IconButton text={text} icon={icon} disabled={dead} onPress={run} />
        </span>
      ))}
    </div>
  );
}
