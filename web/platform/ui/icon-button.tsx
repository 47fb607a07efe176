import type { ReactNode } from 'react';

interface IconButtonProps {
  /** What it does, said and shown on hovering. */
  label: string;
  isOff?: boolean;
  onPress: () => void;
  children: ReactNode;
}

/** A small button that shows only a sign. */
export function IconButton({ label, isOff, onPress, children }: IconButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={isOff}
      onClick={onPress}
      className="grid tap-square place-items-center rounded-field text-ink-2 hover:bg-wash disabled:opacity-30"
    >
      {children}
    </button>
  );
}
