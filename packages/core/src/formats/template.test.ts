import { describe, expect, test } from '@jest/globals';
import { startDesign, wireModel } from '../antenna/kinds';
import { templateDxf, templateOf, templateSvg } from './template';
import { groundClass } from '../solver/ground-classes';

const beam = { ...startDesign('rectangle-beam', 433.92e6), diameterM: 0.002 };
const model = wireModel(beam, groundClass('free').ground);

describe('template at full size', () => {
  // 247.8 × 92.2 mm (worked by hand from the regression) fits A4 upright.
  test('a UHF beam fits a sheet, true to size', () => {
    const template = templateOf(model);
    expect(template.sheet).toBe('A4');
    const side = template.wires.find((wire) => wire.name === 'driven side');
    expect(Math.hypot((side?.x2 ?? 0) - (side?.x1 ?? 0), (side?.y2 ?? 0) - (side?.y1 ?? 0))).toBeCloseTo(247.8, 0);
    for (const wire of template.wires)
      for (const x of [wire.x1, wire.x2]) {
        expect(x).toBeGreaterThanOrEqual(10);
        expect(x).toBeLessThanOrEqual(template.widthMm - 10);
      }
    expect(template.marks.filter((mark) => mark.what === 'feed')).toHaveLength(1);
    expect(template.marks.filter((mark) => mark.what === 'joint')).toHaveLength(4);
  });
  test('SVG is in millimetres, DXF is made of pairs and ends', () => {
    const svg = templateSvg(templateOf(model), 'Beam <1>');
    expect(svg).toContain('width="210mm" height="297mm"');
    expect(svg).toContain('Beam &lt;1>');
    const lines = templateDxf(templateOf(model)).trimEnd().split('\n');
    expect(lines.length % 2).toBe(0);
    expect(lines.slice(-2)).toEqual(['0', 'EOF']);
    expect(lines.filter((line) => line === 'LINE')).toHaveLength(6);
  });
  test('what is larger than a sheet is told so', () => {
    expect(() => templateOf(wireModel(startDesign('half-wave-dipole', 7.1e6), groundClass('free').ground))).toThrow(
      /larger than an A3 sheet/,
    );
  });
});
