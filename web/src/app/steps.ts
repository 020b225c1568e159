// The steps of the job that are built.
export const STEPS = [
  { step: 1, name: 'Basis' },
  { step: 2, name: 'Build-ups' },
  { step: 3, name: 'Joints' },
  { step: 4, name: 'Fixings' },
  { step: 5, name: 'Moisture' },
  { step: 6, name: 'Set-out' },
  { step: 7, name: 'Whole shell' },
  { step: 8, name: 'Shop' },
];

/** The step before or after another one; itself at the end of the row. */
export function stepBeside(step: number, by: 1 | -1): number {
  const at = STEPS.findIndex((one) => one.step === step);
  return STEPS[at + by]?.step ?? step;
}
