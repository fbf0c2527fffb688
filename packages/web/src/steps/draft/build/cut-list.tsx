import { antennaKind, type Design, type Draft } from '@velvet-reed/core/antenna';
import { inchText, lengthText, showLength } from '@velvet-reed/core/units';
import { useState } from 'react';
import { saveCsv } from '../../../ui/export';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';

const millimetres = (lengthM: number): string =>
  lengthM < 0.3 ? `${(lengthM * 1000).toFixed(1)} mm` : `${Math.round(lengthM * 1000)} mm`;

/** What to cut, what to buy. */
export function CutList({ design, draft }: { readonly design: Design; readonly draft: Draft }) {
  const [inches, setInches] = useState(false);
  const tape = inches ? inchText : millimetres;
  const kind = antennaKind(design.kind);
  const totalM = draft.pieces.reduce((sum, one) => sum + (one.bought ? 0 : one.count * one.cutM), 0);
  return (
    <Section
      title="Cut list"
      hint="to the millimetre, or to a sixteenth of an inch"
      actions={
        <>
          <Button look="quiet" aria-pressed={inches} onClick={() => setInches(!inches)}>
            {inches ? 'Millimetres' : 'Inches'}
          </Button>
          <Button
            look="quiet"
            onClick={() =>
              saveCsv(
                'cut-list.csv',
                ['piece', 'count', 'cut_mm', 'finished_mm'],
                draft.pieces.map((one) => [
                  one.name,
                  one.count,
                  (one.cutM * 1000).toFixed(1),
                  (one.finishedM * 1000).toFixed(1),
                ]),
              )
            }
          >
            CSV
          </Button>
        </>
      }
    >
      <Wide evidence label="Cut list">
        <table className="w-full max-w-3xl">
          <thead>
            <tr>
              <th scope="col">Piece</th>
              <th scope="col">How many</th>
              <th scope="col">Cut to</th>
              <th scope="col">On the tape</th>
              <th scope="col">Finished, as drafted</th>
            </tr>
          </thead>
          <tbody>
            {draft.pieces.map((one) => (
              <tr key={one.name}>
                <th scope="row" className="text-ink">
                  {one.name}
                </th>
                <td className="font-mono">{one.count}</td>
                <td>
                  <Value
                    strong
                    shown={showLength(one.cutM, 4)}
                    provenance={{
                      origin: 'model',
                      formula:
                        one.cutM > one.finishedM
                          ? `the longest of closed form, model and rule × (1 + ${design.allowance})`
                          : 'cut to its finished length',
                      inputs: [['finished', lengthText(one.finishedM, 4)]],
                      source: draft.figures[0]?.source ?? 'the dimensions above',
                    }}
                  />
                </td>
                <td className="font-mono whitespace-nowrap">
                  {tape(one.cutM)}
                  {one.longer && (
                    <p className="max-w-72 font-sans text-xs whitespace-normal text-caution">{one.longer}</p>
                  )}
                </td>
                <td>
                  <Value
                    shown={showLength(one.finishedM, 4)}
                    provenance={{
                      origin: 'model',
                      formula: draft.figures[0]?.formula ?? 'from the dimensions above',
                      source: draft.figures[0]?.source ?? 'geometry',
                    }}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="mt-2 text-sm text-dim">
        {totalM > 0 && (
          <>
            Conductor in all: <span className="font-mono">{lengthText(totalM, 3)}</span>; buy a tenth more.
          </>
        )}
      </p>
      <div className="mt-3 grid max-w-3xl gap-x-8 gap-y-2 text-sm sm:grid-cols-2">
        <div>
          <h3 className="font-semibold">To buy or find</h3>
          <ul className="list-disc pl-5">
            <li>
              {lengthText(1.1 * totalM, 2)} of {lengthText(design.diameterM)} conductor
              {design.insulated ? ', insulated' : ''}
            </li>
            {kind.materials.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
        <div>
          <h3 className="font-semibold">What usually goes wrong</h3>
          <ul className="list-disc pl-5">
            {kind.goesWrong.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      </div>
    </Section>
  );
}
