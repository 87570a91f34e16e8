'use client';
import { Popover } from 'radix-ui';
import { glossary, type TradeWord } from '@/core/glossary';

/** A trade word where a newcomer first meets it: a press says what it means. */
export const Term = ({ word, children }: { word: TradeWord; children?: string }) => (
  <Popover.Root>
    <Popover.Trigger
      className="cursor-help underline decoration-dotted underline-offset-3 pointer-coarse:min-h-11"
      aria-label={`${children ?? word}: what it means`}
    >
      {children ?? word}
    </Popover.Trigger>
    <Popover.Portal>
      <Popover.Content
        aria-label={word}
        sideOffset={6}
        collisionPadding={8}
        className="z-50 max-w-[34ch] border border-line bg-raised px-3 py-2 font-sans text-[13px] shadow-lg"
      >
        {glossary[word]}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
