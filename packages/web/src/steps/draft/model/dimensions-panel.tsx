import { antennaKind, knownDimensions, parametersInUse } from '@velvet-reed/core/antenna';
import { lengthText, slipOf } from '@velvet-reed/core/units';
import { useId, useState } from 'react';
import { Button } from '../../../ui/button';
import { BASE, shownValue, slideOf, typedValue, type Editing, type Field } from '../editing';

/** Every dimension, to type or to drag; an emptied one follows its formula again. */
export function DimensionsPanel({ editing, onSave }: { readonly editing: Editing; readonly onSave: () => void }) {
  const id = useId();
  const { design, texts, faults } = editing;
  const kind = antennaKind(design.kind);
  const values = knownDimensions(design);
  const closed = knownDimensions({ ...design, dimensions: {} });
  const fields: readonly Field[] = [
    ...BASE.filter((field) => !kind.ignores?.some((ignored) => ignored === field.id)),
    ...parametersInUse(kind.parameters, values).map((parameter) => ({
      ...parameter,
      slide: slideOf(parameter, closed[parameter.id] ?? values[parameter.id] ?? parameter.least),
    })),
  ];
  const slips = fields.flatMap((field) => {
    const value = values[field.id];
    if (value === undefined || !texts[field.id] || field.dimension !== 'length') return [];
    const slip = slipOf(value, [closed[field.id] ?? 0]);
    return slip ? [{ id: field.id, label: field.label, slip, dimension: field.dimension }] : [];
  });
  const slipKey = slips.map(({ id: name, slip }) => `${name} ${slip.meant}`).join();
  const [confirmed, setConfirmed] = useState('');
  const asking = slips.length > 0 && confirmed !== slipKey;
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        const first = Object.keys(faults)[0];
        if (first) document.getElementById(`${id}-${first}`)?.focus();
        else if (asking) setConfirmed(slipKey);
        else onSave();
      }}
    >
      <div className="grid gap-x-6 gap-y-2 sm:max-lg:grid-cols-2">
        {fields.map((field) => {
          const fault = faults[field.id];
          const value = values[field.id];
          const formula = closed[field.id];
          const placeholder = formula === undefined ? '' : typedValue(formula, field.dimension);
          if (field.yesNo)
            return (
              <label key={field.id} className="flex min-h-11 items-center gap-2 self-end sm:min-h-9">
                <input
                  type="checkbox"
                  checked={value === 1}
                  onChange={(event) => editing.type(field, event.target.checked ? '1' : '0')}
                />
                {field.label}
              </label>
            );
          return (
            <div key={field.id}>
              <label htmlFor={`${id}-${field.id}`} className="block text-sm text-dim">
                {field.label}
              </label>
              <input
                id={`${id}-${field.id}`}
                type="text"
                autoComplete="off"
                className="w-full font-mono"
                value={texts[field.id] ?? ''}
                placeholder={placeholder}
                aria-invalid={fault ? true : undefined}
                aria-describedby={`${id}-${field.id}-note`}
                onChange={(event) => editing.type(field, event.target.value)}
              />
              {field.slide && (
                <input
                  type="range"
                  aria-label={`Drag ${field.label}`}
                  className="block w-full"
                  min={field.slide[0]}
                  max={field.slide[1]}
                  step={field.whole ? 1 : (field.slide[1] - field.slide[0]) / 400}
                  value={value}
                  onChange={(event) =>
                    editing.type(field, typedValue(Number(Number(event.target.value).toPrecision(4)), field.dimension))
                  }
                />
              )}
              <p
                id={`${id}-${field.id}-note`}
                role={fault ? 'alert' : undefined}
                className={`text-xs ${fault ? 'text-danger' : 'text-dim'}`}
              >
                {fault ??
                  (field.hint || '') +
                    (value !== undefined && !texts[field.id]
                      ? `${field.hint ? '; ' : ''}by formula`
                      : value !== undefined && formula !== undefined && Math.abs(formula / value - 1) > 5e-4
                        ? `${field.hint ? '; ' : ''}formula: ${shownValue(formula, field.dimension)}`
                        : '')}
              </p>
            </div>
          );
        })}
        {!kind.ignores?.includes('insulated') && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={design.insulated}
              onChange={(event) => editing.setInsulated(event.target.checked)}
            />
            Insulated wire
          </label>
        )}
      </div>
      {slips.map(({ id: name, label, slip, dimension }) => (
        <p key={name} role="status" className="mt-2 text-sm text-caution">
          {label} is about {slip.kind} off its formula. Did you mean {shownValue(slip.meant, dimension)}?
          {asking ? '' : ' Press save once more to keep it as typed.'}
        </p>
      ))}
      <Button type="submit" look="main" className="mt-3">
        {slips.length > 0 && !asking ? 'Save anyway' : 'Save as a new revision'}
      </Button>
      <p className="mt-1 text-xs text-dim">
        {lengthText(design.diameterM)} conductor, {kind.summary}
      </p>
    </form>
  );
}
