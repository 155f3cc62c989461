/** Rows of a picture that is made in parts: from one, up to but without another. */
export interface Band {
  from: number;
  to: number;
}
