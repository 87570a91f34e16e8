'use client';
import { Select } from 'radix-ui';

export type Option = { value: string; text: string; disabled?: boolean; why?: string };

/** A word inside a sentence that can be another one. */
export function LiveChoice({
  label,
  value,
  options,
  dye,
  empty = 'choose',
  onChange,
}: {
  label: string;
  value: string;
  options: readonly Option[];
  dye?: string;
  empty?: string;
  onChange: (value: string) => void;
}) {
  return (
    <Select.Root value={value} onValueChange={onChange}>
      <Select.Trigger
        aria-label={label}
        className="num whitespace-nowrap border-b-2 px-0.5 text-left hover:bg-sunk data-[placeholder]:text-madder"
        style={{ borderColor: dye ?? 'var(--ink2)' }}
      >
        <Select.Value placeholder={empty} />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-80 overflow-auto border border-line bg-raised p-1 shadow-lg"
        >
          <Select.Viewport>
            {options.map((option) => (
              <Select.Item
                key={option.value}
                value={option.value}
                disabled={option.disabled}
                className="num cursor-pointer px-3 py-1.5 outline-none data-[disabled]:cursor-default data-[disabled]:text-ink2 data-[highlighted]:bg-sunk data-[state=checked]:font-bold"
              >
                <Select.ItemText>{option.text}</Select.ItemText>
                {option.why && <span className="ml-2 font-sans text-ink2">{option.why}</span>}
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
