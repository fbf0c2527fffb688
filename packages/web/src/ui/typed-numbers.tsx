import type { ReactNode } from 'react';
import type { TypedNumbers } from './use-typed-numbers';

/** The inputs of typed numbers in a row, each with its fault beside it. */
export function TypedFields({ of, children }: { readonly of: TypedNumbers; readonly children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
      {of.fields.map((field) => (
        <div key={field.name}>
          <label htmlFor={field.id} className="block text-sm text-dim">
            {field.label}
          </label>
          <input
            id={field.id}
            className="w-32 font-mono"
            value={field.text}
            autoComplete="off"
            aria-invalid={field.fault ? true : undefined}
            aria-describedby={field.fault ? `${field.id}-fault` : undefined}
            onChange={(event) => of.set(field.name, event.target.value)}
          />
          {field.meant && (
            <p role="status" className="max-w-56 text-sm text-caution">
              About {field.meant.kind} off what is expected here.{' '}
              <button
                type="button"
                className="underline"
                onClick={() => field.meant && of.set(field.name, field.meant.text)}
              >
                Is {field.meant.text} meant?
              </button>
            </p>
          )}
          {field.fault && (
            <p id={`${field.id}-fault`} role="alert" className="max-w-56 text-sm text-danger">
              {field.fault}
            </p>
          )}
        </div>
      ))}
      {children}
    </div>
  );
}
