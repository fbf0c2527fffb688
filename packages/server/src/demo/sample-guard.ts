/** Numbers of the demo's records that its drawing speaks of. */
export interface DrawnIds {
  readonly plan: number;
  readonly part: number;
  readonly oldDipole: number;
  readonly hfInput: number;
}

/** The relay that takes the HF receiver off the old dipole while the club transmits. Made up. */
export const clubSwitch = (plan: number) => ({
  guardPlanId: plan,
  ...{ name: 'Receive relay', kind: 'switch' as const, x: 240, y: 180, pulled: true },
  figures: { throws: 1, lossDb: 0.2 },
  // an open contact couples by its capacitance: some 6 dB less for twice the frequency
  points: [
    [1.8e6, 86],
    [3.6e6, 80],
    [7.1e6, 74],
    [14.2e6, 68],
    [30e6, 62],
  ].map(([freqHz, db]) => ({ figure: 'isolationDb' as const, freqHz, db })),
  choices: { drive: 'key', receive: '1', transmit: '', rest: '' },
  evidence: { isolationDb: 'measured', lossDb: 'assumed' },
});

/** The old dipole by the relay to the HF receiver; the other receiver is left as it was entered. */
export function clubLinks({ plan, part, oldDipole, hfInput }: DrawnIds) {
  const link = (fromNode: string, fromPort: string, toNode: string, toPort: string) => ({
    ...{ guardPlanId: plan, fromNode, fromPort, toNode, toPort },
  });
  return [link(`antenna:${oldDipole}`, 'a', `part:${part}`, '1'), link(`part:${part}`, 'c', `input:${hfInput}`, 'a')];
}
