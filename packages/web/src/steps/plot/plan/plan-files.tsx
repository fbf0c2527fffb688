import { readPlot, writePlot } from '@velvet-reed/core/formats';
import { saveAs } from 'file-saver';
import { useRef, type ChangeEvent } from 'react';
import { plotFeaturesOf } from '@velvet-reed/station/plotted';
import { entry, type StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { saveText } from '../../../ui/export';
import { Section } from '../../../ui/section';
import { EMPTY_FEATURE } from './empty-feature';

/** The plan as it is seen now: its layers are canvases of their own. */
function savePlanPicture(name: string): void {
  const layers = [...document.querySelectorAll<HTMLCanvasElement>('#sheet [data-plan] canvas')];
  const whole = document.createElement('canvas');
  whole.width = Math.max(1, ...layers.map(({ width }) => width));
  whole.height = Math.max(1, ...layers.map(({ height }) => height));
  const pen = whole.getContext('2d');
  for (const layer of layers) pen?.drawImage(layer, 0, 0);
  whole.toBlob((picture) => picture && saveAs(picture, name));
}

/** The plan as a file, and files onto the plan. */
export function PlanFiles({ data }: { readonly data: StationData }) {
  const { save, importPicture } = useWrite();
  const geo = useRef<HTMLInputElement>(null);
  const picture = useRef<HTMLInputElement>(null);
  const takePlan = async (file: File): Promise<void> => {
    try {
      const found = readPlot(await file.text(), data.station);
      await save(
        [
          ...found.map((one) => ({
            op: 'create' as const,
            resource: 'plotFeatures' as const,
            values: { ...EMPTY_FEATURE, ...one, points: [...one.points] },
          })),
          entry('plot', `Imported ${found.length} features from ${file.name}.`),
        ],
        `${found.length} features are on the plan.`,
      );
    } catch (error) {
      showTrouble(error);
    }
  };
  const takePicture = async (file: File): Promise<void> => {
    try {
      await importPicture(file);
    } catch (error) {
      showTrouble(error);
    }
  };
  const taken = (take: (file: File) => Promise<void>) => (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file) void take(file);
  };
  return (
    <Section title="In and out" hint="GeoJSON of WGS 84 positions; a PNG or JPEG picture, north up">
      <div className="flex flex-wrap gap-3">
        <Button
          onClick={() =>
            saveText(
              `${data.station.name}-plan.geojson`,
              writePlot(
                plotFeaturesOf(data).filter((one) => one.kind !== 'picture'),
                data.station,
              ),
              'application/geo+json',
            )
          }
        >
          Save as GeoJSON
        </Button>
        <Button onClick={() => savePlanPicture(`${data.station.name}-plan.png`)}>Save as PNG</Button>
        <Button onClick={() => geo.current?.click()}>Import GeoJSON</Button>
        <Button onClick={() => picture.current?.click()}>Put a picture underneath</Button>
        <input
          ref={geo}
          type="file"
          accept=".geojson,.json,application/geo+json"
          className="hidden"
          aria-label="GeoJSON file"
          onChange={taken(takePlan)}
        />
        <input
          ref={picture}
          type="file"
          accept="image/png,image/jpeg"
          className="hidden"
          aria-label="Picture file"
          onChange={taken(takePicture)}
        />
      </div>
      <p className="mt-2 max-w-prose text-sm text-dim">
        To scale a picture, measure a stretch on it whose length you know; the scale is then offered below the plan.
      </p>
    </Section>
  );
}
