import type { FilterDesign } from '@velvet-reed/core/filter';
import { Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { partRows, USUAL_COIL, type Named } from './part-rows';

/** What the filter is built from, with the listener's own core and air coil. */
export function FilterParts({ names, design }: { readonly names: Named; readonly design: FilterDesign }) {
  const typed = useTypedNumbers([
    { name: 'al', label: 'Core, nH per turn²', dimension: 'plain', start: '4' },
    { name: 'diameter', label: 'Air coil, mean diameter', dimension: 'length', bareUnit: 'mm', start: '8 mm' },
    { name: 'pitch', label: 'from turn to turn', dimension: 'length', bareUnit: 'mm', start: '1.5 mm' },
  ]);
  const [al, diameterM, pitchM] = ['al', 'diameter', 'pitch'].map((name) => typed.value(name));
  const coil =
    al && diameterM && pitchM && al > 0 && diameterM > 0 && pitchM > 0
      ? { alHenry: al * 1e-9, diameterM, pitchM }
      : USUAL_COIL;
  return (
    <>
      <TypedFields of={typed} />
      <Wide label="Parts of the filter">
        <table className="max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Ideal (model)</th>
              <th scope="col">Built from (capacitors: catalogue; turns: model)</th>
            </tr>
          </thead>
          <tbody>
            {partRows(names, design, coil).map((row) => (
              <tr key={row.name}>
                <th scope="row" className="font-mono text-ink">
                  {row.name}
                </th>
                <td className="font-mono whitespace-nowrap">{row.ideal}</td>
                <td className="text-sm">{row.real}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </>
  );
}
