'use client';
import { ToggleGroup } from 'radix-ui';

/** Knobs side by side of which one or several are pressed; arrows go from one to the next. */
export function Choices<Value extends string>({
  label,
  options,
  pressed,
  onPress,
  strip = false,
}: {
  label: string;
  options: readonly (Value | { id: Value; text: string; title?: string })[];
  pressed: (value: Value) => boolean;
  onPress: (value: Value) => void;
  /** one row on a phone, which scrolls where it is longer than the screen is wide */
  strip?: boolean;
}) {
  const all = options.map((option) =>
    typeof option === 'string' ? { id: option, text: option, title: undefined } : option,
  );
  const on = all.filter(({ id }) => pressed(id)).map(({ id }) => id as string);
  const turn = (next: string[]) => {
    const turned = all.find(({ id }) => on.includes(id) !== next.includes(id));
    if (turned) onPress(turned.id);
  };
  return (
    <ToggleGroup.Root
      type="multiple"
      role="group"
      className={`flex flex-wrap gap-2 ${strip ? 'max-w-full phone:flex-nowrap phone:overflow-x-auto phone:py-0.5 phone:*:flex-none' : ''}`}
      aria-label={label}
      value={on}
      onValueChange={turn}
    >
      {all.map(({ id, text, title }) => (
        <ToggleGroup.Item key={id} value={id} className="knob" title={title}>
          {text}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
