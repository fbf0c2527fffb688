import { modelFileOf, readModelFile, type ModelFileContent } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { templateDxf, templateOf, templateSvg } from '@velvet-reed/core/formats';
import type { WireModel } from '@velvet-reed/core/solver';
import { frequencyText, significant, inDb } from '@velvet-reed/core/units';
import { useMemo, useRef, useState } from 'react';
import { questionOf, useModel } from '../../../data/model';
import { showTrouble } from '../../../data/station';
import { Button } from '../../../ui/button';
import { saveText } from '../../../ui/export';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { modelProvenance } from '../model-figures';

const fileName = (name: string): string => `${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.json`;

/** Takes the wires along as a file, and solves a file from elsewhere without storing it. */
export function ModelFile({
  name,
  model,
  freqHz,
}: {
  readonly name: string;
  readonly model: WireModel;
  readonly freqHz: number;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  const [opened, setOpened] = useState<ModelFileContent & { readonly name: string }>();
  const [fault, setFault] = useState('');
  const open = async (file: File): Promise<void> => {
    try {
      setOpened({ ...readModelFile(JSON.parse(await file.text())), name: file.name });
      setFault('');
    } catch (error) {
      setOpened(undefined);
      setFault(
        `${file.name}: ${error instanceof SyntaxError ? 'this is not JSON. Export the model again.' : error instanceof Error ? error.message : 'it cannot be read.'} Nothing was changed.`,
      );
    }
  };
  return (
    <Section title="Model file" hint="wires, ports, loads and ground as JSON; the format stands in docs/formats.md">
      <div className="flex flex-wrap gap-3">
        <Button
          onClick={() =>
            saveText(fileName(name), JSON.stringify(modelFileOf({ model, freqHz }), undefined, 2), 'application/json')
          }
        >
          Save the model
        </Button>
        <input
          ref={chooser}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label="Model file"
          accept=".json"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void open(file);
            event.target.value = '';
          }}
        />
        <Button onClick={() => chooser.current?.click()}>Solve a model file</Button>
      </div>
      <TemplateButtons name={name} model={model} />
      {fault && (
        <p role="alert" className="mt-2 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {opened && <Opened {...opened} />}
    </Section>
  );
}

/** Full-size drawing to print, where it fits a sheet. */
function TemplateButtons({ name, model }: { readonly name: string; readonly model: WireModel }) {
  const template = useMemo(() => {
    try {
      return templateOf(model);
    } catch (error) {
      if (error instanceof CoreError) return error.message;
      throw error;
    }
  }, [model]);
  if (typeof template === 'string') return <p className="mt-3 text-sm text-dim">No full-size template: {template}</p>;
  const pdf = async (): Promise<void> => {
    const { saveSheet } = await import('../../../ui/sheet-pdf');
    await saveSheet(templateSvg(template, name), template, fileName(name).replace('.json', '-template.pdf'));
  };
  return (
    <p className="mt-3 flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="Full-size template">
      Full-size template on {template.sheet}:
      <Button
        look="quiet"
        onClick={() =>
          saveText(fileName(name).replace('.json', '-template.svg'), templateSvg(template, name), 'image/svg+xml')
        }
      >
        SVG
      </Button>
      <Button
        look="quiet"
        onClick={() =>
          saveText(fileName(name).replace('.json', '-template.dxf'), templateDxf(template), 'image/vnd.dxf')
        }
      >
        DXF
      </Button>
      <Button look="quiet" onClick={() => void pdf().catch(showTrouble)}>
        PDF
      </Button>
    </p>
  );
}

function Opened({ name, model, freqHz }: ModelFileContent & { readonly name: string }) {
  const question = useMemo(
    () => questionOf(model, freqHz, { lowHz: freqHz * 0.95, highHz: freqHz * 1.05 }),
    [model, freqHz],
  );
  const state = useModel(question);
  if (state.trouble)
    return (
      <p role="alert" className="mt-2 max-w-prose text-danger">
        {name}: {state.trouble}
      </p>
    );
  if (!state.spot) return <p role="status">Computing…</p>;
  const { impedance, peak } = state.spot;
  return (
    <p className="mt-2" data-testid="opened-model">
      {name} at {frequencyText(freqHz)}:{' '}
      <Value
        strong
        shown={{
          digits: `${significant(impedance.re, 3)} ${impedance.im < 0 ? '−' : '+'} j${significant(Math.abs(impedance.im), 3)}`,
          unit: 'Ω',
        }}
        provenance={modelProvenance(state, 'voltage over current at the feed')}
      />
      , <Value strong shown={inDb(peak.gainDbi, 1, 'dBi')} provenance={modelProvenance(state, 'largest power gain')} />{' '}
      at {peak.elevationDeg.toFixed(1)}° elevation. It is solved here, not stored.
    </p>
  );
}
