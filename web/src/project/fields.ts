// Figures that somebody decides, as a sheet lists them.
export interface Field {
  field: string;
  text: string;
  dimension: string;
  decimals?: number;
  optional?: boolean;
  /** A number of things. */
  whole?: boolean;
}
