import { isNoiseTest } from '@velvet-reed/core/noise';
import { choice, maybeRef, maybeReal, real, text, takenOn } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, LEVEL } from './shared';

/** What a level was read for. */
const LEVEL_KINDS = ['off and on', 'floor', 'log', 'device', 'test', 'survey'] as const;
type LevelKind = (typeof LEVEL_KINDS)[number];

/** What a level of each kind says beside frequency and level, and what it is called there. */
const NEEDS: Readonly<Record<LevelKind, Readonly<Partial<Record<'atMs' | 'againstDbm' | 'bandwidthHz', string>>>>> = {
  'off and on': { againstDbm: 'The level with the antenna off' },
  floor: { bandwidthHz: 'The bandwidth' },
  log: { atMs: 'The time' },
  device: { againstDbm: 'The level with the device off', atMs: 'The time' },
  test: { againstDbm: 'The level after the change', atMs: 'The time' },
  survey: { againstDbm: 'The noise beside the signal', atMs: 'The time' },
};

/** A level as read: with the antenna off and on, a floor, one moment of a log, with a device on and off, before and after a test, or a signal of a survey. */
export const levels = tableOf({
  label: 'level',
  columns: {
    kind: choice('Kind', LEVEL_KINDS),
    /** When it was read; null: when it was written down. */
    atMs: maybeReal('Time (ms)', 0, 1e14),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    levelDbm: real('Level (dBm)', ...LEVEL),
    /** What it is read against: the antenna off, the device off, the noise beside the signal. */
    againstDbm: maybeReal('Level it is read against (dBm)', ...LEVEL),
    bandwidthHz: maybeReal('Bandwidth (Hz)', 1, 100e6),
    /** Null for a floor: referred to a lossless antenna. */
    antennaId: maybeRef('antennas', 'Antenna'),
    receiverId: maybeRef('receivers', 'Receiver'),
    /** The device that was switched, the test that was made, or the signal that was heard. */
    subject: text('Device or signal', 80),
    conditions: text('Conditions', 400),
    takenOn: takenOn(),
  },
  rules: (schema) =>
    schema.test('kind', '', (value, { createError }) => {
      for (const [name, what] of Object.entries(NEEDS[value.kind] ?? {}))
        if (value[name === 'atMs' ? 'atMs' : name === 'againstDbm' ? 'againstDbm' : 'bandwidthHz'] === null)
          return createError({ path: name, message: `${what} is missing. Enter it.` });
      if (['device', 'survey', 'test'].includes(value.kind) && String(value.subject ?? '').trim() === '')
        return createError({
          path: 'subject',
          message: { device: 'Name the device.', test: 'Choose the test.' }[value.kind as string] ?? 'Name the signal.',
        });
      if (value.kind === 'test' && !isNoiseTest(value.subject))
        return createError({ path: 'subject', message: 'This is no test of the list. Choose one of the list.' });
      return true;
    }),
});
