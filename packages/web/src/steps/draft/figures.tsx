import type { DraftFigure } from '@velvet-reed/core/antenna';
import { showFrequency, showLength, significant, inDb } from '@velvet-reed/core/units';
import { Section } from '../../ui/section';
import { Value } from '../../ui/value';

/** Closed-form figures with their formulas. */
export function Figures({ figures }: { readonly figures: readonly DraftFigure[] }) {
  if (figures.length === 0) return null;
  return (
    <Section title="Closed-form figures">
      <dl className="grid max-w-2xl grid-cols-[auto_1fr] gap-x-6 gap-y-1">
        {figures.map((figure) => (
          <div key={figure.label} className="contents">
            <dt className="text-dim">{figure.label}</dt>
            <dd>
              <Figure figure={figure} />
            </dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}

function Figure({ figure }: { readonly figure: DraftFigure }) {
  const shown =
    figure.dimension === 'length'
      ? showLength(figure.value, figure.figures)
      : figure.dimension === 'frequency'
        ? showFrequency(figure.value, figure.figures)
        : figure.dimension === 'gain'
          ? inDb(figure.value)
          : figure.dimension === 'resistance' && figure.value >= 1e4
            ? { digits: significant(figure.value / 1000, figure.figures), unit: 'kΩ' }
            : {
                digits: significant(figure.value, figure.figures),
                unit: figure.dimension === 'resistance' ? 'Ω' : figure.dimension === 'angle' ? '°' : '',
              };
  return <Value shown={shown} provenance={{ origin: figure.origin, formula: figure.formula, source: figure.source }} />;
}
