import type { RefObject } from 'react';
import { showTrouble } from '../data/station';
import { Button } from './button';
import { drawingIn, savePng, saveSvg } from './export';

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
  const drawing = (): SVGSVGElement | undefined => (of.current ? drawingIn(of.current) : undefined);
  // file names have hyphens; a voice has words
  const said = name.replaceAll('-', ' ');
  return (
    <span role="group" aria-label={`Save ${said}`} className="flex">
      <Button
        look="quiet"
        aria-label={`SVG of ${said}`}
        onClick={() => {
          const svg = drawing();
          if (svg) saveSvg(`${name}.svg`, svg);
        }}
      >
        SVG
      </Button>
      <Button
        look="quiet"
        aria-label={`PNG of ${said}`}
        onClick={() => {
          const svg = drawing();
          if (svg) savePng(`${name}.png`, svg).catch(showTrouble);
        }}
      >
        PNG
      </Button>
      {onCsv && (
        <Button look="quiet" aria-label={`CSV of ${said}`} onClick={onCsv}>
          CSV
        </Button>
      )}
    </span>
  );
}
