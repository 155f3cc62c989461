import { attachSheets, detachSheets, type Recipe, type Sheet, type StoredRecipe } from '@zesty-tile/core';

/** So many sheets that a recipe no longer has are kept for steps that are undone. */
const SPARE = 256;

interface WithRecipe {
  recipe: Recipe | Carried;
}

/** A recipe on its way to the engine. Of its strokes only sheets go along that the engine has not got. */
export interface Carried {
  carried: StoredRecipe;
  sheets: Map<string, Sheet>;
  /** Sheets that the engine need not keep any longer. */
  spent: string[];
}

/** What makes recipes ready for one engine, which gets all of them in this order. */
export function packer(): (recipe: Recipe) => Carried {
  /** Sheets that were sent, those needed last at the end. */
  const sent = new Set<string>();
  return (recipe) => {
    const { stored, sheets } = detachSheets(recipe);
    const fresh = new Map<string, Sheet>();
    for (const [hash, sheet] of sheets) {
      if (!sent.delete(hash)) fresh.set(hash, sheet);
      sent.add(hash);
    }
    const spent = [...sent].slice(0, Math.max(0, sent.size - sheets.size - SPARE));
    for (const hash of spent) sent.delete(hash);
    return { carried: stored, sheets: fresh, spent };
  };
}

/** What makes recipes whole again where they arrive. Strokes that came once are the same objects in every recipe. */
export function unpacker(): (given: Carried) => Recipe {
  const kept = new Map<string, Sheet>();
  return ({ carried, sheets, spent }) => {
    for (const [hash, sheet] of sheets) kept.set(hash, sheet);
    const whole = attachSheets(carried, (hash) => kept.get(hash)!);
    for (const hash of spent) kept.delete(hash);
    return whole as Recipe;
  };
}

type Call = (...given: never[]) => unknown;

const hasRecipe = (one: unknown): one is WithRecipe =>
  typeof one === 'object' && one !== null && 'recipe' in one;

/** The same functions with what holds a recipe changed on its way to them. */
const changed =
  (call: Call, change: (recipe: never) => Recipe | Carried) =>
  (...given: unknown[]): unknown =>
    call(
      ...(given.map((one) =>
        hasRecipe(one) ? { ...one, recipe: change(one.recipe as never) } : one,
      ) as never[]),
    );

/** An engine at the other end of a port, to which recipes go packed. */
export function sending<T extends object>(engine: T): T {
  const pack = packer();
  return new Proxy(engine, {
    get(target, name) {
      const call: unknown = Reflect.get(target, name);
      return typeof call === 'function' && typeof name === 'string' ? changed(call as Call, pack) : call;
    },
  });
}

/** What an engine offers, taking packed recipes. */
export function receiving<T extends object>(offered: T): T {
  const unpack = unpacker();
  const all = Object.entries(offered as Record<string, Call>).map(([name, call]) => [
    name,
    changed(call, unpack),
  ]);
  return Object.fromEntries(all) as T;
}
