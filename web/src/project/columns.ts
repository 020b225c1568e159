// Columns of a table of entered things.
interface Named<Row> {
  key: keyof Row;
  label: string;
}
interface Words<Row> extends Named<Row> {
  kind: 'text';
}
interface OneOf<Row> extends Named<Row> {
  kind: 'choice';
  options: readonly { value: string; text: string }[];
  /** Kept as a number. */
  number?: boolean;
}
interface Figure<Row> extends Named<Row> {
  kind: 'figure';
  dimension: string;
  optional?: boolean;
  /** What else is written with it. */
  clears?: Partial<Row>;
}
/** Lengths along a face, with ; between them. */
interface Places<Row> extends Named<Row> {
  kind: 'places';
  clears?: Partial<Row>;
}
export type Column<Row> = Words<Row> | OneOf<Row> | Figure<Row> | Places<Row>;
