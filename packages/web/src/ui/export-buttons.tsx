import type { RefObject } from 'react';
import { showTrouble } from '../data/station';
import { Button } from './button';
import { savePng, saveSvg } from './export';

/** Takes the drawing inside an element along as SVG, PNG, and its numbers as CSV. */
export function ExportButtons({
  of,
  name,
  onCsv,
}: {
  readonly of: RefObject<HTMLElement | null>;
  readonly name: string;
  readonly onCsv?: () => void;
}) {
  const drawing = (): SVGSVGElement | undefined => {
    const all = [...(of.current?.querySelectorAll('svg') ?? [])];
    // the largest: axes and marks are drawings of their own
    return all.sort((a, b) => b.clientWidth * b.clientHeight - a.clientWidth * a.clientHeight)[0];
  };
  return (
    <span role="group" aria-label={`Save ${name}`} className="flex">
      <Button
        look="quiet"
        onClick={() => {
          const svg = drawing();
          if (svg) saveSvg(`${name}.svg`, svg);
        }}
      >
        SVG
      </Button>
      <Button
        look="quiet"
        onClick={() => {
          const svg = drawing();
          if (svg) savePng(`${name}.png`, svg).catch(showTrouble);
        }}
      >
        PNG
      </Button>
      {onCsv && (
        <Button look="quiet" onClick={onCsv}>
          CSV
        </Button>
      )}
    </span>
  );
}
