/** Rows of a picture that is made in parts: from one, up to but without another. */
export interface Band {
  from: number;
  to: number;
}

/** A band in parts of so many rows at most. */
export function* bandParts({ from, to }: Band, rows: number): Generator<Band> {
  for (let at = from; at < to; at += rows) yield { from: at, to: Math.min(to, at + rows) };
}
