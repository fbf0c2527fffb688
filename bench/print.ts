/** One line: what was measured, the figure, the target and whether it is met. */
export function printLine(what: string, figure: string, target: string, met: boolean): void {
  console.log(`  ${what.padEnd(58)} ${figure.padStart(14)}   target ${target.padEnd(14)} ${met ? 'met' : 'MISSED'}`);
}

export const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
