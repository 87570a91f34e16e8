'use client';

/** Knobs side by side of which one or several are pressed. */
export function Choices<Value extends string>({
  label,
  options,
  pressed,
  onPress,
}: {
  label: string;
  options: readonly (Value | { id: Value; text: string; title?: string })[];
  pressed: (value: Value) => boolean;
  onPress: (value: Value) => void;
}) {
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label={label}>
      {options.map((option) => {
        const { id, text, title } =
          typeof option === 'string' ? { id: option, text: option, title: undefined } : option;
        return (
          <button
            key={id}
            type="button"
            className="knob"
            title={title}
            aria-pressed={pressed(id)}
            onClick={() => onPress(id)}
          >
            {text}
          </button>
        );
      })}
    </div>
  );
}
