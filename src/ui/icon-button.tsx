import type { LucideIcon } from 'lucide-react';

/** A button that is a picture alone; its words are heard, and seen where the pointer rests. */
export const IconButton = ({
  text,
  icon: Icon,
  disabled,
  onPress,
}: {
  text: string;
  icon: LucideIcon;
  disabled?: boolean;
  onPress: () => void;
}) => (
  <button
    type="button"
    title={text}
    aria-label={text}
    disabled={disabled}
    className="grid size-8 place-items-center rounded-[3px] hover:bg-sunk disabled:opacity-40 pointer-coarse:size-11"
    onClick={onPress}
  >
    <Icon size={16} aria-hidden />
  </button>
);
