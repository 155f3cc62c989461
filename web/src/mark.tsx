/** The mark: a tile with a slice removed from it. */
export function Mark() {
  return <img src="/mark.svg" width={24} height={24} alt="" />;
}
