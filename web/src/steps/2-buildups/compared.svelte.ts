// What the build-up on the bench is compared with; it stays when another one takes its place.
export const REFERENCE = 'site-framed-reference';
export const compared = $state<{ others: string[] }>({ others: [REFERENCE] });
