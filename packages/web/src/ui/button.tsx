import type { ButtonHTMLAttributes } from 'react';

const LOOK = {
  main: 'border-plum bg-plum text-sheet hover:opacity-90',
  plain: 'border-dim hover:border-plum hover:text-plum',
  quiet: 'border-transparent text-plum underline decoration-1 underline-offset-4 hover:decoration-2 px-1',
  danger: 'border-transparent text-danger underline underline-offset-4 px-1',
} as const;

/**
 * A button; 44 px tall on a phone, so that cold thumbs hit it. `busy` while its work is under way: unlike a disabled button it keeps the
 * focus and lets keys through.
 */
export function Button({
  look = 'plain',
  className = '',
  busy = false,
  onClick,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { readonly look?: keyof typeof LOOK; readonly busy?: boolean }) {
  return (
    <button
      type="button"
      aria-disabled={busy || undefined}
      className={`inline-flex min-h-11 items-center gap-1.5 rounded-[3px] border px-3 text-[0.93rem] disabled:cursor-not-allowed disabled:opacity-50 aria-disabled:opacity-50 sm:min-h-9 ${LOOK[look]} ${className}`}
      onClick={busy ? (event) => event.preventDefault() : onClick}
      {...rest}
    />
  );
}
