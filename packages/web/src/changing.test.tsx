// What docs/changing.md says of a new antenna kind: one file and one line of the list, and it stands everywhere.
import { MADE_UP_KIND } from './made-up-kind';
import { describe, expect, test } from '@jest/globals';
import { randomStation } from '@velvet-reed/contract/testing';
import { SCHEMAS } from '@velvet-reed/contract';
import { startDesign, tryDraft, usefulRange, wireModel } from '@velvet-reed/core/antenna';
import { hearingQuestions, kindCandidates } from '@velvet-reed/core/choose';
import { groundClass } from '@velvet-reed/core/solver';
import { screen, within } from '@testing-library/react';
import { renderPage } from './data/page-harness';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import ModelRoom from './steps/draft/model/page';

const { id } = MADE_UP_KIND;

describe('a kind of antenna that was put on the list', () => {
  test('it is drafted, modelled and has a lane of its own', () => {
    const design = startDesign(id, 9.65e6);
    expect(tryDraft(design).draft?.pieces[0].count).toBe(2);
    expect(wireModel(design, groundClass('average').ground).wires.length).toBeGreaterThan(0);
    expect(usefulRange(design)[0]).toBeLessThan(9.65e6);
  });
  test('it may be stored, and made-up stations hold some of it', () => {
    const revision = { ...startDesign(id, 9.65e6), antennaId: 1, number: 1, gates: [], done: [] };
    expect(() => SCHEMAS.revisions.validateSync(revision, { strict: true })).not.toThrow();
    const kinds = Array.from({ length: 60 }, (_, i) => randomStation(i + 1).lists.revisions).flat();
    expect(kinds.some((revision) => revision?.kind === id)).toBe(true);
  });
  test('Choose asks the wire model for it, with its own price', () => {
    const target = {
      ...{ id: '1', name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 5, arrivalDeg: 15 },
    };
    const specs = kindCandidates(
      [target],
      [{ id: 'g', name: 'Garden', kind: 'garden', spanM: 38, widthM: 0, heightM: 9, distanceM: 40 }],
    );
    const mine = specs.find((spec) => spec.source === 'kind' && spec.design.kind === id);
    expect(mine?.burden.price).toBe(7);
    expect(mine && hearingQuestions([mine], [target], [], groundClass('average').ground).length).toBeGreaterThan(0);
  });
  test('Draft offers it', () => {
    renderPage(ModelRoom, 'draft', { ...TEST_STATION, antennas: [], revisions: [] });
    const list = screen.getByRole('combobox', { name: 'Kind' });
    expect(within(list).getByRole('option', { name: /Made-up wire/ })).toBeTruthy();
  });
});
