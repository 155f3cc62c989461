const NUMBERS = new WeakMap<object, number>();
let next = 1;

/** A number that an object keeps as long as it lives, by which results can be kept; any other value as it is. */
export function identityOf(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  let number = NUMBERS.get(value);
  if (number === undefined) {
    number = next++;
    NUMBERS.set(value, number);
  }
  return ['object', number];
}
